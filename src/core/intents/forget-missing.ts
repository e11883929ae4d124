import type { FromSchema } from 'json-schema-to-ts'
import { idOrBlankSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['systemId'],
  additionalProperties: false,
  properties: { systemId: idOrBlankSchema },
} as const
export type ForgetMissingIntent = FromSchema<typeof schema>

export const forgetMissingIntent = {
  kind: 'forget-missing',
  title: 'Forget what is missing of a system',
  verb: 'Forget it',
  place: '/build/systems/{systemId}',
  form: {
    lead: 'Look at the system itself first. What it no longer states stays on record as missing until you say that it is gone for good; what it states again by then is kept.',
    fields: [],
  },
  intentSchema: schema,
} as const satisfies IntentKind
