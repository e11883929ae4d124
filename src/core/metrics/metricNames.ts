import type { FieldOf } from '../estate'

/** What is measured of objects. */
export interface Metric {
  readonly words: string
  readonly unit: 'bytes' | 'bytes a second' | 'requests a second' | 'seconds' | 'part' | 'count' | 'degrees'
  /** Kept besides as how often values of each size came: what matters of it are its high values, not its mean. */
  readonly isDistribution?: true
  /** Empty for what systems measure themselves; else the field that has it now, by kind, and how often it is looked at (minutes). */
  readonly of: {
    readonly pools?: { readonly field: FieldOf<'pools'>; readonly everyMinutes: number }
    readonly volumes?: { readonly field: FieldOf<'volumes'>; readonly everyMinutes: number }
    readonly drives?: { readonly field: FieldOf<'drives'>; readonly everyMinutes: number }
    readonly shares?: { readonly field: FieldOf<'shares'>; readonly everyMinutes: number }
    readonly systems?: { readonly field: FieldOf<'systems'>; readonly everyMinutes: number }
  }
  /** Most have none of it for ever: a series begins when it is more than nothing. */
  readonly isFromNothing?: true
  /** Samples of so long stand in one pack (hours): longer where they are seldom, so that a pack is worth its row. */
  readonly packHours: 1 | 24
}

/** Every series that is kept: adding one that a field of a kind has is a line here. */
export const metrics = {
  written: {
    words: 'Written',
    unit: 'bytes',
    of: {
      pools: { field: 'writtenBytes', everyMinutes: 5 },
      volumes: { field: 'writtenBytes', everyMinutes: 60 },
      shares: { field: 'usedBytes', everyMinutes: 60 },
    },
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
  errors: {
    words: 'Corrected errors',
    unit: 'count',
    of: { drives: { field: 'correctedErrors', everyMinutes: 60 } },
    packHours: 24,
    isFromNothing: true,
  },
  lost: {
    words: 'Reads and writes that failed',
    unit: 'count',
    of: { drives: { field: 'lostErrors', everyMinutes: 60 } },
    packHours: 24,
    isFromNothing: true,
  },
  hits: { words: 'Read cache hits', unit: 'part', of: {}, packHours: 1 },
  warmth: {
    words: 'Warmest sensor',
    unit: 'degrees',
    of: { systems: { field: 'warmestCelsius', everyMinutes: 5 } },
    packHours: 24,
  },
} as const satisfies Readonly<Record<string, Metric>>

export type MetricName = keyof typeof metrics
/** The kinds of objects of which anything is measured. */
export const measuredKinds = ['pools', 'volumes', 'drives', 'shares', 'systems'] as const
export type MeasuredKind = (typeof measuredKinds)[number]

/** Whether a kind has a metric: what systems count themselves they count of volumes, and so of pools. */
export function isMeasuredOf(kind: MeasuredKind, name: MetricName): boolean {
  const { of } = metrics[name] as Metric
  return Object.keys(of).length === 0 ? kind === 'pools' || kind === 'volumes' : of[kind] !== undefined
}

export const metricNames = Object.keys(metrics) as MetricName[]

/** The beginning of the pack in which an instant lies (milliseconds since 1970). */
export const packStart = (metric: MetricName, at: number): number => {
  const span = metrics[metric].packHours * 3_600_000
  return Math.floor(at / span) * span
}
