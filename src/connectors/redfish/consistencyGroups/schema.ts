import { compile, head, optionalText, references, text, type Checked } from '../schema'

/** Volumes that have snapshots of one instant. Source: Swordfish, ConsistencyGroup. */
export const isConsistencyGroup = compile({
  type: 'object',
  required: ['@odata.id', 'Name'],
  properties: {
    ...head,
    Description: optionalText,
    Volumes: references,
    Actions: {
      type: 'object',
      properties: {
        '#ConsistencyGroup.CreateReplicaTarget': { type: 'object', properties: { target: text } },
      },
    },
  },
} as const)

export type RedfishConsistencyGroup = Checked<typeof isConsistencyGroup>
