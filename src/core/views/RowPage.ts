import type { Finding } from '../findings'

/** A finding as it is kept: since when it stands, and the exception that covers it. */
export interface FindingRecord {
  readonly finding: Finding
  readonly systemId: string
  readonly since: string
  readonly exception: { readonly reason: string; readonly signedBy: string; readonly until: string } | null
}

/** Work of a cluster on its pieces, with what was forecast and what happened; seconds of the estate's clock. */
export interface PieceWork {
  readonly id: string
  readonly kind: 'rebuild' | 'move'
  readonly bytes: bigint
  readonly p10Seconds: number
  readonly p50Seconds: number
  readonly p90Seconds: number
  readonly boundBy: string
  readonly startedEstateAt: string
  readonly endedEstateAt: string | null
  readonly doneRatio: number
  readonly state: 'running' | 'done' | 'failed'
  /** False for work that had ended before it was first seen: no forecast stood beside it. */
  readonly wasForecast: boolean
}
