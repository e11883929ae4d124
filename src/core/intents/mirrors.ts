import { idOrBlankSchema } from '../estate'
import type { FormField, IntentKind, IntentOf } from './IntentKind'

const elsewhere = {
  volumeId: idOrBlankSchema,
  poolId: idOrBlankSchema,
  ratePercent: { type: 'number', minimum: 1, maximum: 90 },
} as const
const elsewhereFields: readonly FormField[] = [
  {
    field: 'poolId',
    label: 'To',
    hint: 'A pool of a system with which its own is paired.',
    as: 'one of',
    choices: 'pools of its partners',
  },
  {
    field: 'ratePercent',
    label: 'Rate of mirroring',
    hint: '% of the drives of both pools and of the line between them; hosts have the rest.',
    as: 'number',
  },
]

const moveToSystemSchema = {
  type: 'object',
  required: ['volumeId', 'poolId', 'ratePercent'],
  additionalProperties: false,
  properties: elsewhere,
} as const
export type MoveToSystemIntent = IntentOf<typeof moveToSystemSchema>

export const moveToSystemIntent = {
  kind: 'move-to-system',
  title: 'Move a volume to another system',
  verb: 'Move it',
  place: '/provision?sel={volumeId}',
  offer: {
    words: 'Move to another system',
    when: { state: 'in use', isClone: false, hasPartners: true, isMirrored: false },
    isRare: true,
  },
  form: {
    lead: 'While its hosts read and write it: it is mirrored there first, compared, and then that system takes over.',
    fields: elsewhereFields,
  },
  intentSchema: moveToSystemSchema,
} as const satisfies IntentKind

const mirrorVolumeSchema = {
  type: 'object',
  required: ['volumeId', 'poolId', 'ratePercent'],
  additionalProperties: false,
  // Of its own: what is compiled for the browser is told apart by the schema itself.
  properties: { ...elsewhere },
} as const
export type MirrorVolumeIntent = IntentOf<typeof mirrorVolumeSchema>

export const mirrorVolumeIntent = {
  kind: 'mirror-volume',
  title: 'Mirror a volume to another system',
  verb: 'Mirror it',
  place: '/provision?sel={volumeId}',
  offer: {
    words: 'Mirror',
    when: { state: 'in use', isClone: false, hasPartners: true, isMirrored: false },
    isRare: true,
  },
  form: {
    lead: 'Every write reaches both systems before its host is told that it is written: the other one is never behind.',
    fields: elsewhereFields,
  },
  intentSchema: mirrorVolumeSchema,
} as const satisfies IntentKind

const endMirrorSchema = {
  type: 'object',
  required: ['volumeId'],
  additionalProperties: false,
  properties: { volumeId: idOrBlankSchema },
} as const
export type EndMirrorIntent = IntentOf<typeof endMirrorSchema>

export const endMirrorIntent = {
  kind: 'end-mirror',
  title: 'End the mirror of a volume',
  verb: 'End it',
  place: '/provision?sel={volumeId}',
  offer: { words: 'End its mirror', when: { state: 'in use', isSource: true }, isRare: true },
  form: { lead: 'What the other system holds is kept for the time of holding.', fields: [] },
  intentSchema: endMirrorSchema,
} as const satisfies IntentKind

const refillMirrorSchema = {
  type: 'object',
  required: ['volumeId', 'ratePercent'],
  additionalProperties: false,
  properties: { volumeId: idOrBlankSchema, ratePercent: elsewhere.ratePercent },
} as const
export type RefillMirrorIntent = IntentOf<typeof refillMirrorSchema>

export const refillMirrorIntent = {
  kind: 'refill-mirror',
  title: 'Fill a broken mirror again',
  verb: 'Fill it again',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Fill its mirror again', when: { state: 'in use', hasBrokenMirror: true } },
  form: {
    lead: 'Its hosts go on. From the moment at which both hold the same, every write reaches both again.',
    fields: elsewhereFields.filter(({ field }) => field === 'ratePercent'),
  },
  intentSchema: refillMirrorSchema,
} as const satisfies IntentKind

/** Volumes and other systems. */
export const mirrorIntents: readonly IntentKind[] = [
  moveToSystemIntent,
  mirrorVolumeIntent,
  refillMirrorIntent,
  endMirrorIntent,
]
