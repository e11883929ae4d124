import type { SimulatedArray, VolumeEntity } from '../../array'
import type { Body } from '../body'
import type { RowService } from '../RowService'

const rate = { type: ['integer', 'null'], minimum: 1 } as const
/** What a volume may be asked for, as two makers have words for it. */
export const ceiling = {
  type: 'object',
  required: ['RequestsPerSecond', 'BytesPerSecond'],
  additionalProperties: false,
  properties: { RequestsPerSecond: rate, BytesPerSecond: rate },
} as const

/** What its maker says of it beyond the standard: what a row has lost, what other arrays let it be asked for. */
export function ownVolumePart(array: SimulatedArray, each: VolumeEntity, nodes: RowService | undefined): Body {
  if (nodes !== undefined) return { Oem: { Mirefield: { LostBytes: Number(nodes.view.lostBytes(each)) } } }
  const { requestsPerSecond = null, bytesPerSecond = null } = each.ceiling ?? {}
  const part = {
    Ceiling: { RequestsPerSecond: requestsPerSecond, BytesPerSecond: bytesPerSecond },
    ...(each.mirror === undefined ? {} : { MirrorPartner: each.mirror.partner }),
  }
  return { Oem: { [ownName(array)]: part } }
}

const ownName = (array: SimulatedArray) => (array.model.maker === 'Ferrow' ? 'Ferrow' : 'TallisThorne')
/** The part of a request that is for this maker; what is for another is passed over, as systems do. */
export const ownPart = <T extends { readonly TallisThorne?: unknown; readonly Ferrow?: unknown }>(
  array: SimulatedArray,
  own: T | undefined,
): T['Ferrow'] | undefined => own?.[ownName(array)] as T['Ferrow'] | undefined
