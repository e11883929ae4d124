import { bytes, compile, reference } from '../schema'
import type { Maker } from './Maker'

const volumePart = {
  type: 'object',
  properties: {
    HeldUntil: {
      type: 'array',
      maxItems: 4096,
      items: { type: 'object', required: ['LastHolder', 'Bytes'], properties: { LastHolder: reference, Bytes: bytes } },
    },
  },
} as const
const isVolumePart = compile(volumePart)

/** Arrays of the maker Tallis & Thorne: they tell of a snapshot what it is the first to hold, by the last that holds it too. */
export const tallisThorne: Maker = {
  parts: { volume: volumePart },
  heldUntil: own =>
    isVolumePart(own) && own.HeldUntil !== undefined
      ? own.HeldUntil.map(({ LastHolder, Bytes }) => ({ locator: LastHolder['@odata.id'], bytes: `${Bytes}` }))
      : null,
  moveRate: ratePercent => ({ Oem: { TallisThorne: { MoveRatePercent: ratePercent } } }),
}
