import type { ChangeRecord, EvidenceEntry, JournalEntry } from '@/core/views'
import { DataTypes } from 'sequelize'
import { toJson } from '../database'
import { kept, modelFor } from '../model'

/** Since when calls of one kind have failed without a good answer between: ISO 8601 by the name of the call. */
export type Failing = Readonly<Record<string, string>>

/** What a record of a change states as text, and the database as an instant. */
export type Instants = 'madeAt' | 'carriedOutAt' | 'carriedOutEstateAt' | 'endedAt' | 'endedEstateAt'

export interface KeptChange extends Omit<ChangeRecord, Instants> {
  readonly madeAt: Date
  readonly revisedAt: Date
  readonly carriedOutAt: Date | null
  readonly carriedOutEstateAt: Date | null
  readonly endedAt: Date | null
  readonly endedEstateAt: Date | null
  /** Tries to prove it. */
  readonly attempt: number
  /** How long it has stood still, stopped or unproven, until somebody let it go on. */
  readonly idleSeconds: number
}

const isSet = { type: DataTypes.BOOLEAN }
const integer = { type: DataTypes.INTEGER }
const real = { type: DataTypes.DOUBLE }
const maybeId = { type: DataTypes.UUID }
/** Numbers that the database itself counts. */
const counted = { type: DataTypes.BIGINT, primaryKey: true, autoIncrement: true }

export const changeModel = modelFor<KeptChange>('changes', {
  id: kept.id,
  number: integer,
  kind: kept.text,
  state: kept.text,
  title: kept.text,
  intent: kept.json,
  plan: kept.json,
  planDigest: kept.text,
  differences: kept.json,
  edit: integer,
  editedBy: kept.text,
  madeBy: kept.text,
  madeAt: kept.instant,
  revisedAt: kept.instant,
  carriedOutAt: kept.instant,
  carriedOutEstateAt: kept.instant,
  endedAt: kept.instant,
  endedEstateAt: kept.instant,
  isStopWanted: isSet,
  isUndoWanted: isSet,
  facts: kept.json,
  refusal: kept.json,
  stands: kept.maybeText,
  reverses: maybeId,
  attempt: integer,
  tookSeconds: real,
  idleSeconds: real,
})

export interface KeptMark {
  readonly id: string
  readonly changeId: string
  readonly stepIndex: number
  readonly event: JournalEntry['event']
  readonly at: Date
  readonly estateAt: Date
  readonly doneRatio: number | null
  readonly words: string
  readonly facts: Readonly<Record<string, unknown>>
  readonly waitWallSeconds: number | null
  readonly waitedSeconds: number | null
}

export const journalModel = modelFor<KeptMark>('change_journal', {
  id: counted,
  changeId: kept.uuid,
  stepIndex: integer,
  event: kept.text,
  at: kept.instant,
  estateAt: kept.instant,
  doneRatio: real,
  words: kept.text,
  facts: kept.json,
  waitWallSeconds: real,
  waitedSeconds: real,
})

export interface KeptEvidence {
  readonly id: string
  readonly changeId: string
  readonly claim: string
  readonly holds: boolean
  readonly measured: EvidenceEntry['measured']
  readonly at: Date
  readonly attempt: number
}

export const evidenceModel = modelFor<KeptEvidence>('evidence', {
  id: counted,
  changeId: kept.uuid,
  claim: kept.text,
  holds: isSet,
  measured: kept.json,
  at: kept.instant,
  attempt: integer,
})

export interface Claim {
  readonly claim: string
  readonly changeId: string
}

export const claimModel = modelFor<Claim>('claims', {
  claim: { type: DataTypes.TEXT, primaryKey: true },
  changeId: kept.uuid,
})

export interface KeptOutcome {
  readonly changeId: string
  readonly kind: string
  readonly baseSeconds: number
  readonly p10Seconds: number
  readonly p50Seconds: number
  readonly p90Seconds: number
  readonly actualSeconds: number
  readonly endedAt: Date
}

export const outcomeModel = modelFor<KeptOutcome>('forecast_outcomes', {
  changeId: kept.id,
  kind: kept.text,
  baseSeconds: real,
  p10Seconds: real,
  p50Seconds: real,
  p90Seconds: real,
  actualSeconds: real,
  endedAt: kept.instant,
})

/** A change that has given its slot back: it waits for a system's task, or for a moment. */
export interface Wait {
  readonly changeId: string
  readonly stepIndex: number
  readonly systemId: string | null
  readonly task: string | null
  readonly words: string
  readonly beganAt: Date
  /** When it is tried again, where it waits for a moment. */
  readonly againAt: Date | null
  readonly failing: Failing
  readonly doneRatio: number
  readonly toldAt: Date | null
}

export const waitModel = modelFor<Wait>('change_waits', {
  changeId: kept.id,
  stepIndex: integer,
  systemId: maybeId,
  task: kept.maybeText,
  words: kept.maybeText,
  beganAt: kept.instant,
  againAt: kept.instant,
  failing: kept.json,
  doneRatio: real,
  toldAt: kept.instant,
})

/** As JSON keeps it: bytes as decimal text. */
export const asKept = <T>(value: T): T => JSON.parse(toJson(value)) as T
