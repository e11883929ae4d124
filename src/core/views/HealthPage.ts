import type { FindingRecord } from './RowPage'
import type { SensorReading } from './SystemPage'

/** How far what a system says is known, and what of it could not be kept. */
export interface SourceLine {
  readonly id: string
  readonly name: string
  readonly reach: 'answering' | 'not answering'
  readonly seenAt: string | null
  /** By the estate's clock: until when its levels and its counters are known. */
  readonly levelsUntil: string | null
  readonly countersUntil: string | null
  /** Since when it may still have to say what it has kept. */
  readonly gapSince: string | null
  /** Samples that were not kept, by why. */
  readonly refused: Readonly<Record<string, number>>
}

/** A drive that somebody should look at. */
export interface WornLine {
  readonly id: string
  readonly name: string
  readonly serial: string
  readonly model: string
  readonly systemName: string
  readonly poolId: string | null
  readonly poolName: string | null
  readonly state: string
  readonly correctedErrors: number | null
  readonly lostErrors: number | null
  readonly wearRatio: number | null
  readonly powerOnHours: number | null
}

export interface HealthPage {
  readonly findings: readonly FindingRecord[]
  readonly sources: readonly SourceLine[]
  /** Those that are not well first, then those that have erred most, then those that are worn most. */
  readonly drives: readonly WornLine[]
  readonly sensors: readonly (SensorReading & { readonly systemId: string; readonly systemName: string })[]
  /** How many sensors and drives there are in all. */
  readonly sensorCount: number
  readonly driveCount: number
}
