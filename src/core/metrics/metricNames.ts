import type { FieldOf } from '../estate'

/** What is measured of objects. */
export interface Metric {
  readonly words: string
  readonly unit: 'bytes' | 'bytes a second' | 'requests a second' | 'seconds'
  /** Kept besides as how often values of each size came: what matters of it are its high values, not its mean. */
  readonly isDistribution?: true
  /** Empty for what systems measure themselves; else the field that has it now, by kind, and how often it is looked at (minutes). */
  readonly of: {
    readonly pools?: { readonly field: FieldOf<'pools'>; readonly everyMinutes: number }
    readonly volumes?: { readonly field: FieldOf<'volumes'>; readonly everyMinutes: number }
  }
  /** Samples of so long stand in one pack (hours): longer where they are seldom, so that a pack is worth its row. */
  readonly packHours: 1 | 24
}

/** Every series that is kept: adding one that a field of a kind has is a line here. */
export const metrics = {
  written: {
    words: 'Written',
    unit: 'bytes',
    of: { pools: { field: 'writtenBytes', everyMinutes: 5 }, volumes: { field: 'writtenBytes', everyMinutes: 60 } },
    packHours: 24,
  },
  held: {
    words: 'Held by snapshots',
    unit: 'bytes',
    of: { pools: { field: 'snapshotBytes', everyMinutes: 5 } },
    packHours: 24,
  },
  latency: { words: 'Latency', unit: 'seconds', of: {}, packHours: 1, isDistribution: true },
  requests: { words: 'Requests', unit: 'requests a second', of: {}, packHours: 1 },
  writes: { words: 'Writes', unit: 'requests a second', of: {}, packHours: 1 },
  throughput: { words: 'Throughput', unit: 'bytes a second', of: {}, packHours: 1 },
} as const satisfies Readonly<Record<string, Metric>>

export type MetricName = keyof typeof metrics
export const metricNames = Object.keys(metrics) as MetricName[]

/** The beginning of the pack in which an instant lies (milliseconds since 1970). */
export const packStart = (metric: MetricName, at: number): number => {
  const span = metrics[metric].packHours * 3_600_000
  return Math.floor(at / span) * span
}
