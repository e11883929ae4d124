import { readClient, ruleReach, type ExportRule, type RuleReach } from '@/core/access'

/** A piece of a rule's client on the axis of addresses, from 0 to 1. */
export interface ReachBar {
  readonly index: number
  readonly from: number
  readonly to: number
  readonly reach: RuleReach
}

export interface ReachAxis {
  /** Subnets that hold others, and single hosts beside them, in the order of their addresses. */
  readonly blocks: readonly { readonly words: string; readonly from: number; readonly to: number }[]
  readonly bars: readonly ReachBar[]
}

interface Spot {
  readonly family: 4 | 6
  readonly first: bigint
  readonly end: bigint
  readonly index: number
}

/** What is left between two blocks: addresses for which there is no rule of their own. */
const gap = 0.02
/** The last part of the axis is every other address. */
const restFrom = 0.9

/**
 * An axis on which the addresses that rules name stand in their order, without the vast spaces between: blocks that lie in no other are
 * as wide as their size is long in digits, and within them everything is to scale.
 */
export function reachAxis(rules: readonly ExportRule[]): ReachAxis {
  const reach = ruleReach(rules)
  const spots = rules.flatMap(({ client }, index): Spot[] => {
    const read = readClient(client)
    if ('why' in read || read.kind === 'any' || read.kind === 'name') return []
    const bits = BigInt((read.family === 4 ? 32 : 128) - read.length)
    return [{ family: read.family, first: read.first, end: read.first + (1n << bits), index }]
  })
  const outer = spots
    .filter(
      spot =>
        !spots.some(other => other !== spot && holds(other, spot) && (!holds(spot, other) || other.index < spot.index)),
    )
    .sort((a, b) => a.family - b.family || (a.first < b.first ? -1 : 1))
  const widths = outer.map(({ first, end }) => 1 + Math.log2(Number(end - first)))
  const whole = widths.reduce((sum, width) => sum + width, 0)
  const free = restFrom - gap * outer.length
  let at = 0
  const places = outer.map((spot, index) => {
    const from = at
    const to = from + ((widths[index] ?? 0) / (whole || 1)) * free
    at = to + gap
    return { spot, from, to }
  })
  return {
    blocks: places.map(({ spot, from, to }) => ({ words: rules[spot.index]?.client ?? '', from, to })),
    bars: rules.flatMap(({ client }, index) => {
      const own = reach[index]
      const spot = spots.find(each => each.index === index)
      const place = spot === undefined ? undefined : places.find(each => holds(each.spot, spot))
      if (own === undefined) return []
      if (spot === undefined || place === undefined)
        return client.trim() === '*' ? [{ index, from: restFrom + gap, to: 1, reach: own }] : []
      return [{ index, reach: own, ...scaled(place, spot) }]
    }),
  }
}

const holds = (outer: Spot, inner: Spot) =>
  outer.family === inner.family && outer.first <= inner.first && inner.end <= outer.end

function scaled({ spot, from, to }: { readonly spot: Spot; readonly from: number; readonly to: number }, inner: Spot) {
  const size = Number(spot.end - spot.first)
  const scale = (value: bigint) => from + (Number(value - spot.first) / size) * (to - from)
  return { from: scale(inner.first), to: scale(inner.end) }
}
