import { idOrBlankSchema } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'

/** `probeId` names a first look at the system's address, which holds the credentials sealed: they are never part of an intent. */
const registerSystemSchema = {
  type: 'object',
  required: ['probeId', 'name', 'siteId', 'isPlainHttpAccepted', 'acceptedFingerprint'],
  additionalProperties: false,
  properties: {
    probeId: idOrBlankSchema,
    name: { type: 'string', maxLength: 255 },
    siteId: idOrBlankSchema,
    isPlainHttpAccepted: { type: 'boolean' },
    acceptedFingerprint: { type: 'string', maxLength: 128 },
  },
} as const
export type RegisterSystemIntent = IntentOf<typeof registerSystemSchema>

export const registerSystemIntent = {
  kind: 'register-system',
  title: 'Register a system',
  verb: 'Register',
  place: '/build',
  form: {
    fields: [
      { field: 'probeId', label: 'System', as: 'part' },
      {
        field: 'name',
        label: 'Name in the estate',
        hint: 'Letters, digits, . _ -',
        as: 'suggested name',
        onlyWhile: { field: 'probeId', is: 'filled' },
      },
      {
        field: 'siteId',
        label: 'Site',
        hint: 'Where it stands.',
        as: 'one of',
        choices: 'sites',
        onlyWhile: { field: 'probeId', is: 'filled' },
      },
    ],
  },
  intentSchema: registerSystemSchema,
} as const satisfies IntentKind

const forgetSystemSchema = {
  type: 'object',
  required: ['systemId'],
  additionalProperties: false,
  properties: { systemId: idOrBlankSchema },
} as const
export type ForgetSystemIntent = IntentOf<typeof forgetSystemSchema>

export const forgetSystemIntent = {
  kind: 'forget-system',
  title: 'Take a system out of the estate',
  verb: 'Take it out',
  place: '/build/systems/{systemId}',
  offer: { words: 'Take out of the estate', when: {} },
  form: {
    lead: 'Wendrel forgets the system and all that it has: it is neither watched nor changed any more. On the system itself nothing is changed, hosts go on using what is mapped, and it can be registered again.',
    fields: [],
  },
  intentSchema: forgetSystemSchema,
} as const satisfies IntentKind

const forgetMissingSchema = {
  type: 'object',
  required: ['systemId'],
  additionalProperties: false,
  properties: { systemId: idOrBlankSchema },
} as const
export type ForgetMissingIntent = IntentOf<typeof forgetMissingSchema>

export const forgetMissingIntent = {
  kind: 'forget-missing',
  title: 'Forget what is missing of a system',
  verb: 'Forget it',
  place: '/build/systems/{systemId}',
  form: {
    lead: 'Look at the system itself first. What it no longer states stays on record as missing until you say that it is gone for good; what it states again by then is kept.',
    fields: [],
  },
  intentSchema: forgetMissingSchema,
} as const satisfies IntentKind

/** Systems: taken into the estate and out of it. */
export const systemIntents: readonly IntentKind[] = [registerSystemIntent, forgetSystemIntent, forgetMissingIntent]
