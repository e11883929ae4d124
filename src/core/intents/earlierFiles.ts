import { idOrBlankSchema } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'

const showEarlierFilesSchema = {
  type: 'object',
  required: ['shareId', 'isShown'],
  additionalProperties: false,
  properties: { shareId: idOrBlankSchema, isShown: { type: 'boolean' } },
} as const
export type ShowEarlierFilesIntent = IntentOf<typeof showEarlierFilesSchema>

export const showEarlierFilesIntent = {
  kind: 'show-earlier-files',
  title: 'Show the snapshots of a share to its hosts',
  verb: 'Set it',
  place: '/provision/shares?sel={shareId}',
  offer: { words: 'Earlier files', when: {} },
  start: { isShown: true },
  form: {
    lead: 'Whoever may read the share finds every snapshot of it in a directory at its root, and copies files back from there without asking anybody. Nobody can write there.',
    fields: [
      {
        field: 'isShown',
        label: 'Snapshots are',
        as: 'side by side',
        options: [
          { value: true, words: 'shown' },
          { value: false, words: 'hidden' },
        ],
      },
    ],
  },
  intentSchema: showEarlierFilesSchema,
} as const satisfies IntentKind
