import type { IntentKind, IntentOf } from './IntentKind'

const registerHostSchema = {
  type: 'object',
  required: ['agentAddress', 'groupName'],
  additionalProperties: false,
  properties: { agentAddress: { type: 'string', maxLength: 500 }, groupName: { type: 'string', maxLength: 255 } },
} as const
export type RegisterHostIntent = IntentOf<typeof registerHostSchema>

export const registerHostIntent = {
  kind: 'register-host',
  title: 'Register a host',
  verb: 'Register',
  place: '/provision/hosts',
  form: {
    fields: [
      {
        field: 'agentAddress',
        label: 'Address of its agent',
        hint: 'Such as http://10.0.0.5:4300; it says which initiators the host has.',
        as: 'text',
      },
      {
        field: 'groupName',
        label: 'Host group',
        hint: 'Hosts of a group see the same volumes. A new name makes a new group.',
        as: 'text',
        choices: 'names of host groups',
      },
    ],
  },
  intentSchema: registerHostSchema,
} as const satisfies IntentKind

/** Hosts. */
export const hostIntents: readonly IntentKind[] = [registerHostIntent]
