import { bytes, compile, reference } from '../schema'
import { ceilingProperties, ceilings } from './ceilings'
import { endpointPart, signIns } from './signIns'
import type { Maker } from './Maker'

const volumePart = {
  type: 'object',
  properties: {
    HeldUntil: {
      type: 'array',
      maxItems: 4096,
      items: { type: 'object', required: ['LastHolder', 'Bytes'], properties: { LastHolder: reference, Bytes: bytes } },
    },
    ...ceilingProperties,
    MirrorPartner: { type: 'string', minLength: 1, maxLength: 255 },
  },
} as const
const isVolumePart = compile(volumePart)

const storagePart = {
  type: 'object',
  properties: {
    Partners: {
      type: 'array',
      maxItems: 64,
      items: {
        type: 'object',
        required: ['SerialNumber'],
        properties: { SerialNumber: { type: 'string', minLength: 1, maxLength: 255 } },
      },
    },
  },
} as const
const isStoragePart = compile(storagePart)

/**
 * Arrays of the maker Tallis & Thorne: they tell of a snapshot what it is the first to hold, by the last that holds it too; take limits of
 * volumes; and mirror volumes to arrays with which they have been paired.
 */
export const tallisThorne: Maker = {
  ...ceilings,
  ...signIns,
  parts: { volume: volumePart, endpoint: endpointPart, storage: storagePart },
  partners: own => (isStoragePart(own) ? (own.Partners ?? []).map(({ SerialNumber }) => SerialNumber) : []),
  mirrorPartner: own => (isVolumePart(own) ? own.MirrorPartner : undefined),
  mirrorPart: (partner, ratePercent) => ({ MirrorPartner: partner, MoveRatePercent: ratePercent }),
  heldUntil: own =>
    isVolumePart(own) && own.HeldUntil !== undefined
      ? own.HeldUntil.map(({ LastHolder, Bytes }) => ({ locator: LastHolder['@odata.id'], bytes: `${Bytes}` }))
      : null,
  moveRate: ratePercent => ({ Oem: { TallisThorne: { MoveRatePercent: ratePercent } } }),
}
