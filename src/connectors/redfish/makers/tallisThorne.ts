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
  },
} as const
const isVolumePart = compile(volumePart)

/** Arrays of the maker Tallis & Thorne: they tell of a snapshot what it is the first to hold, by the last that holds it too; and take limits of volumes. */
export const tallisThorne: Maker = {
  ...ceilings,
  ...signIns,
  parts: { volume: volumePart, endpoint: endpointPart },
  heldUntil: own =>
    isVolumePart(own) && own.HeldUntil !== undefined
      ? own.HeldUntil.map(({ LastHolder, Bytes }) => ({ locator: LastHolder['@odata.id'], bytes: `${Bytes}` }))
      : null,
  moveRate: ratePercent => ({ Oem: { TallisThorne: { MoveRatePercent: ratePercent } } }),
}
