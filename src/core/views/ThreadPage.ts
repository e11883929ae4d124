import type { Thread } from '../threads'
import type { FindingRecord } from './RowPage'

/** How a part of a thread stands. */
export interface PartState {
  readonly gravity: 'fine' | 'soon' | 'now' | 'unknown'
  /** What is measured of it, in a few words. */
  readonly words: string
  /** The page that shows it; null for what has none. */
  readonly href: string | null
  readonly systemId: string | null
}

export interface ThreadPage {
  readonly threads: readonly Thread[]
  /** By the key of the part. */
  readonly states: Readonly<Record<string, PartState>>
  /** Volumes in all; threads may show fewer of them. */
  readonly total: number
  readonly findings: readonly FindingRecord[]
}
