import type { Drive, FailureDomainKind, Node, SpreadSchemeText } from '../estate'
import { capacityLadder, reachableLayout, shareOf, type ReachableLayout, type Rung } from '../layout'
import { asSpread, piecesOf, stripeSetCount, widthOf } from './scheme'

/** Space is given out in pieces of this size; a chunk never spans drives. */
const chunkBytes = 1n << 30n
/** What a cluster keeps of raw for its own accounts, until it states it. */
export const metadataRatio = 0.0075

export interface ClusterParts {
  readonly nodes: readonly Node[]
  readonly cache: readonly Drive[]
  readonly capacity: readonly Drive[]
}

export interface ClusterLayout {
  readonly domains: readonly {
    readonly id: string
    readonly name: string
    readonly nodeIds: readonly string[]
    readonly rawBytes: bigint
    readonly strandedBytes: bigint
  }[]
  readonly layout: ReachableLayout
  readonly rawBytes: bigint
  readonly cacheBytes: bigint
  readonly usableBytes: bigint
  readonly redundancyBytes: bigint
  readonly strandedBytes: bigint
  readonly metadataBytes: bigint
  readonly rebuildReserveBytes: bigint
  readonly snapshotReserveBytes: bigint
  readonly freeBytes: bigint
  readonly ladder: readonly Rung[]
}

export interface LayoutWish {
  readonly domain: Exclude<FailureDomainKind, null>
  readonly scheme: SpreadSchemeText
  readonly keepsRebuildReserve: boolean
  readonly snapshotShareRatio: number
}

/** The failure domain in which a node stands. A node whose rack or enclosure is not stated stands alone. */
export function domainOf(node: Node, domain: LayoutWish['domain']): { readonly id: string; readonly name: string } {
  if (domain === 'rack' && node.rack !== null) return { id: `rack/${node.rack}`, name: node.rack }
  if (domain === 'enclosure' && node.enclosureId !== null) return { id: node.enclosureId, name: node.name }
  return { id: node.id, name: node.name }
}

interface Domain {
  readonly name: string
  readonly nodeIds: ReadonlySet<string>
  readonly rawBytes: bigint
  /** Its drives, counted by their size. */
  readonly drives: readonly { readonly bytes: bigint; readonly count: number }[]
}

interface Grouped {
  readonly nodes: readonly Node[]
  readonly domains: ReadonlyMap<string, Domain>
}

/** By the drives of which they are: many layouts of the same drives in the same nodes are compared, and their domains are the same in each. */
const known = new WeakMap<readonly Drive[], Map<LayoutWish['domain'], Grouped>>()

function domainsOf({ nodes, capacity }: ClusterParts, domain: LayoutWish['domain']): ReadonlyMap<string, Domain> {
  const before = known.get(capacity) ?? new Map<LayoutWish['domain'], Grouped>()
  known.set(capacity, before)
  const found = before.get(domain)
  if (found?.nodes === nodes) return found.domains
  const domains = grouped(nodes, capacity, domain)
  before.set(domain, { nodes, domains })
  return domains
}

function grouped(
  nodes: readonly Node[],
  capacity: readonly Drive[],
  domain: LayoutWish['domain'],
): ReadonlyMap<string, Domain> {
  const nodeOf = new Map(nodes.map(node => [node.id, node]))
  const found = new Map<string, { name: string; nodeIds: Set<string>; drives: Drive[] }>()
  for (const drive of capacity) {
    const node = nodeOf.get(drive.nodeId ?? '')
    if (node === undefined) continue
    const { id, name } = domainOf(node, domain)
    const own = found.get(id) ?? { name, nodeIds: new Set(), drives: [] }
    own.nodeIds.add(node.id)
    own.drives.push(drive)
    found.set(id, own)
  }
  return new Map(
    [...found].map(([id, { name, nodeIds, drives }]) => {
      const counts = counted(drives)
      const rawBytes = counts.reduce((sum, { bytes, count }) => sum + bytes * BigInt(count), 0n)
      return [id, { name, nodeIds, rawBytes, drives: counts }]
    }),
  )
}

/** What a cluster of these drives holds, from raw to free; the rungs and what is left add up to raw. */
export function clusterLayout(parts: ClusterParts, wish: LayoutWish): ClusterLayout {
  const { cache } = parts
  const domains = domainsOf(parts, wish.domain)
  const layout = reachableLayout(
    [...domains].map(([id, { drives }]) => ({ id, drives })),
    asSpread(wish.scheme),
    chunkBytes,
    stripeSetCount,
  )
  const { needed } = piecesOf(wish.scheme)
  const cacheBytes = cache.reduce((sum, drive) => sum + drive.capacityBytes, 0n)
  const rawBytes = layout.rawBytes + cacheBytes
  const strandedChunks = layout.domains.reduce((sum, domain) => sum + domain.strandedChunks, 0n)
  const unevenBytes = layout.unevenChunks * chunkBytes
  const strandedBytes = (strandedChunks + layout.remainderChunks) * chunkBytes + layout.unchunkedBytes + unevenBytes
  const redundancyBytes = layout.stripes * BigInt(widthOf(wish.scheme) - needed) * chunkBytes
  const usableBytes = layout.usableBytes
  const metadataBytes = least(usableBytes, shareOf(layout.rawBytes, metadataRatio))
  const rebuildReserveBytes = wish.keepsRebuildReserve
    ? least(usableBytes - metadataBytes, layout.reserveBytes ?? 0n)
    : 0n
  const left = usableBytes - metadataBytes - rebuildReserveBytes
  const snapshotReserveBytes = shareOf(left, wish.snapshotShareRatio)
  const taken = { redundancyBytes, strandedBytes, metadataBytes, rebuildReserveBytes, snapshotReserveBytes }
  const sums = { rawBytes, cacheBytes, ...taken }
  return {
    domains: layout.domains.map(each => laidDomain(each, domains.get(each.id))),
    layout,
    usableBytes,
    ...sums,
    freeBytes: left - snapshotReserveBytes,
    ladder: capacityLadder({ ...sums, unevenBytes, spareBytes: 0n, writtenBytes: 0n }),
  }
}

const laidDomain = ({ id, strandedChunks }: LaidDomain, own: Domain | undefined) => ({
  id,
  name: own?.name ?? id,
  nodeIds: [...(own?.nodeIds ?? [])],
  rawBytes: own?.rawBytes ?? 0n,
  strandedBytes: strandedChunks * chunkBytes,
})
type LaidDomain = ReturnType<typeof reachableLayout>['domains'][number]

const least = (a: bigint, b: bigint) => (a < b ? a : b)

function counted(drives: readonly Drive[]): { readonly bytes: bigint; readonly count: number }[] {
  const counts = new Map<bigint, number>()
  for (const drive of drives) counts.set(drive.capacityBytes, (counts.get(drive.capacityBytes) ?? 0) + 1)
  return [...counts].map(([bytes, count]) => ({ bytes, count }))
}

/**
 * What the other domains lack for the largest one to be used whole: every stripe then has a piece there.
 * @returns bytes, and the domains that hold least; undefined where nothing is stranded
 */
export function lacking(
  { domains }: Pick<ClusterLayout, 'domains'>,
  scheme: SpreadSchemeText,
): { readonly bytes: bigint; readonly domainNames: readonly string[] } | undefined {
  if (!domains.some(domain => domain.strandedBytes > 0n)) return undefined
  const largest = domains.reduce((most, domain) => (domain.rawBytes > most ? domain.rawBytes : most), 0n)
  const total = domains.reduce((sum, domain) => sum + domain.rawBytes, 0n)
  const bytes = BigInt(widthOf(scheme)) * largest - total
  if (bytes <= 0n) return undefined
  const smaller = domains.filter(domain => domain.rawBytes < largest).sort((a, b) => (a.rawBytes < b.rawBytes ? -1 : 1))
  return { bytes, domainNames: smaller.slice(0, 3).map(domain => domain.name) }
}
