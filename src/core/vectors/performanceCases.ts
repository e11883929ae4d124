import {
  kneeOf,
  missCurve,
  stationLoad,
  synchronousWrite,
  writeCost,
  type Station,
  type SynchronousWrite,
  type WriteLayout,
} from '../performance'

type QueueInput = Station & { readonly ask: 'load' | 'knee'; readonly arrivalsPerSecond?: number }

export function queueing({ ask, arrivalsPerSecond = 0, ...station }: QueueInput): unknown {
  if (ask === 'load') return stationLoad(station as Station, arrivalsPerSecond)
  const knee = kneeOf(station as Station)
  return { kneeUtilization: knee.utilization, kneeArrivalsPerSecond: knee.arrivalsPerSecond }
}

export const syncLatency = (
  input: ({ readonly ask: 'latency' } & SynchronousWrite) | ({ readonly ask: 'writeCost' } & WriteLayout),
): unknown => (input.ask === 'latency' ? synchronousWrite(input) : { writeCost: writeCost(input) })

interface TraceInput {
  readonly trace?: readonly number[]
  readonly generator?: {
    readonly seed: number
    readonly accesses: number
    readonly kind: 'uniform' | 'skewed' | 'scanMix'
    readonly blocks: number
    readonly period?: number
    readonly scanBlocks?: number
  }
  readonly cacheBlocks: readonly number[]
}

export function missRatio({ trace, generator, cacheBlocks }: TraceInput): unknown {
  const accessed = trace ?? (generator === undefined ? [] : generated(generator))
  return { ...missCurve(accessed, cacheBlocks), ...(trace === undefined ? { firstBlocks: accessed.slice(0, 10) } : {}) }
}

/** The trace that a worked case describes. */
function generated({
  seed,
  accesses,
  kind,
  blocks,
  period = 1,
  scanBlocks = 1,
}: NonNullable<TraceInput['generator']>): number[] {
  let x = seed >>> 0
  return Array.from({ length: accesses }, (_, at) => {
    x = (Math.imul(x, 1664525) + 1013904223) >>> 0
    const q = x >>> 16
    if (kind === 'uniform') return Math.floor((q * blocks) / 65536)
    if (kind === 'scanMix' && Math.floor(at / period) % 2 === 1) return (at % scanBlocks) + blocks
    return Math.floor((q * q * blocks) / 2 ** 32)
  })
}
