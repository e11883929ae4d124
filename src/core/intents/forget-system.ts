import type { FromSchema } from 'json-schema-to-ts'
import { idOrBlankSchema } from '../estate'
import type { IntentKind } from './IntentKind'

const schema = {
  type: 'object',
  required: ['systemId'],
  additionalProperties: false,
  properties: { systemId: idOrBlankSchema },
} as const
export type ForgetSystemIntent = FromSchema<typeof schema>

export const forgetSystemIntent = {
  kind: 'forget-system',
  title: 'Take a system out of the estate',
  verb: 'Carry out',
  intentSchema: schema,
} as const satisfies IntentKind
