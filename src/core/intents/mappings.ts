import { idOrBlankSchema, idSchema } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'

const mapVolumeSchema = {
  type: 'object',
  required: ['volumeId', 'hostGroupId'],
  additionalProperties: false,
  properties: {
    volumeId: idOrBlankSchema,
    hostGroupId: idOrBlankSchema,
  },
} as const
export type MapVolumeIntent = IntentOf<typeof mapVolumeSchema>

export const mapVolumeIntent = {
  kind: 'map-volume',
  title: 'Map a volume',
  verb: 'Carry out',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Map', when: { state: 'in use' } },
  form: {
    fields: [{ field: 'hostGroupId', label: 'Host group', as: 'one of', choices: 'host groups' }],
  },
  intentSchema: mapVolumeSchema,
} as const satisfies IntentKind

const mapVolumesSchema = {
  type: 'object',
  required: ['volumeIds', 'hostGroupId'],
  additionalProperties: false,
  properties: {
    volumeIds: { type: 'array', maxItems: 64, uniqueItems: true, items: idSchema },
    hostGroupId: idOrBlankSchema,
  },
} as const
export type MapVolumesIntent = IntentOf<typeof mapVolumesSchema>

export const mapVolumesIntent = {
  kind: 'map-volumes',
  title: 'Map volumes to a host group',
  verb: 'Carry out',
  place: '/provision',
  begins: '/provision',
  form: {
    lead: 'All of them, or none: what one step of it cannot do is taken back in the others.',
    fields: [{ field: 'hostGroupId', label: 'Host group', as: 'one of', choices: 'host groups' }],
  },
  intentSchema: mapVolumesSchema,
} as const satisfies IntentKind

const unmapVolumeSchema = {
  type: 'object',
  required: ['volumeId', 'hostGroupId'],
  additionalProperties: false,
  properties: {
    volumeId: idOrBlankSchema,
    hostGroupId: idOrBlankSchema,
  },
} as const
export type UnmapVolumeIntent = IntentOf<typeof unmapVolumeSchema>

export const unmapVolumeIntent = {
  kind: 'unmap-volume',
  title: 'Unmap a volume',
  verb: 'Carry out',
  place: '/provision?sel={volumeId}',
  offer: { words: 'Unmap', when: { state: 'in use', isMapped: true }, isRare: true },
  form: {
    fields: [{ field: 'hostGroupId', label: 'Host group', as: 'one of', choices: 'host groups that see it' }],
  },
  intentSchema: unmapVolumeSchema,
} as const satisfies IntentKind

/** Who sees volumes. */
export const mappingIntents: readonly IntentKind[] = [mapVolumeIntent, mapVolumesIntent, unmapVolumeIntent]
