import { readClient, sizeOf, type Block, type Client } from './client'
import type { ExportRule } from './exportRules'

/** For how many addresses a rule decides, and which others take them from it. */
export interface RuleReach {
  /** Addresses that hosts can have; null for the rest of all addresses, which nobody counts. */
  readonly addresses: bigint | null
  /** Whether it decides for nobody. */
  readonly isNeverReached: boolean
  /** Positions of the rules that decide in its place, the ones that take most first. */
  readonly takenBy: readonly number[]
}

interface Held extends Block {
  readonly index: number
  /** What rules within it decide. */
  taken: bigint
  readonly takers: { readonly index: number; readonly size: bigint }[]
}

/**
 * What of each rule's client is left to it: a host before a longer prefix before a shorter one before any, and among rules for the same
 * the first listed. Blocks either hold each other or have nothing in common, so one pass in the order of their addresses is enough.
 */
export function ruleReach(rules: readonly ExportRule[]): RuleReach[] {
  const read = rules.map(({ client }) => readClient(client))
  const first = new Map<string, number>()
  const earlier = read.map((client, index) => {
    const key =
      'why' in client
        ? `?${index}`
        : JSON.stringify(client, (_, value: unknown) => (typeof value === 'bigint' ? `${value}` : value))
    const before = first.get(key)
    if (before === undefined) first.set(key, index)
    return before
  })
  const blocks: Held[] = read.flatMap((client, index) =>
    'why' in client || client.kind === 'any' || client.kind === 'name' || earlier[index] !== undefined
      ? []
      : [{ family: client.family, first: client.first, length: client.length, index, taken: 0n, takers: [] }],
  )
  const reached = new Map(nested(blocks, read).map(each => [each.index, each]))
  const whole = ([4, 6] as const).map(family => covered(blocks, family))
  return read.map((client, index) => {
    const before = earlier[index]
    if ('why' in client) return { addresses: 0n, isNeverReached: true, takenBy: [] }
    if (before !== undefined) return { addresses: 0n, isNeverReached: true, takenBy: [before] }
    if (client.kind === 'any') return { addresses: null, isNeverReached: whole.every(Boolean), takenBy: [] }
    if (client.kind === 'name') return { addresses: 1n, isNeverReached: false, takenBy: [] }
    const { taken = 0n, takers = [] } = reached.get(index) ?? {}
    const left = sizeOf(client) - taken
    const takenBy = takers.sort((a, b) => Number(b.size - a.size) || a.index - b.index).map(taker => taker.index)
    return { addresses: left === 0n ? 0n : left - unusable(client, blocks), isNeverReached: left === 0n, takenBy }
  })
}

/** Fills in what the blocks within each take from it. */
function nested(blocks: readonly Held[], read: readonly (Client | { readonly why: string })[]): readonly Held[] {
  // Of a host and its full-length prefix the host is within the other.
  const isHost = ({ index }: Held) => (isAddress(read[index]) ? 1 : 0)
  const ordered = [...blocks].sort(
    (a, b) => a.family - b.family || Number(a.first - b.first) || a.length - b.length || isHost(a) - isHost(b),
  )
  const open: Held[] = []
  for (const block of ordered) {
    for (let top = open.at(-1); top !== undefined && !holds(top, block); top = open.at(-1)) open.pop()
    const parent = open.at(-1)
    if (parent !== undefined) {
      parent.taken += sizeOf(block)
      parent.takers.push({ index: block.index, size: sizeOf(block) })
    }
    open.push(block)
  }
  return ordered
}

const isAddress = (client: Client | { readonly why: string } | undefined) =>
  client !== undefined && 'kind' in client && client.kind === 'address'

const holds = (outer: Block, inner: Block) =>
  outer.family === inner.family && outer.first <= inner.first && inner.first < outer.first + sizeOf(outer)

/** Of an IPv4 subnet the first address names it and the last is its broadcast: no host has them (RFC 1122, 3.2.1.3). */
function unusable(block: Block, blocks: readonly Block[]): bigint {
  if (block.family === 6 || block.length > 30) return 0n
  const last = block.first + sizeOf(block) - 1n
  const isTaken = (address: bigint) =>
    blocks.some(
      each =>
        each.family === 4 && each.length > block.length && each.first <= address && address < each.first + sizeOf(each),
    )
  return [block.first, last].reduce((sum, address) => sum + (isTaken(address) ? 0n : 1n), 0n)
}

/** Whether blocks hold all addresses of a family. */
function covered(blocks: readonly Block[], family: Block['family']): boolean {
  const top = { family, first: 0n, length: 0 }
  let next = 0n
  for (const block of blocks.filter(each => each.family === family).sort((a, b) => Number(a.first - b.first))) {
    if (block.first > next) return false
    const end = block.first + sizeOf(block)
    if (end > next) next = end
  }
  return next >= sizeOf(top)
}
