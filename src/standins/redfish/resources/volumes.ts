import { blockVolumes, type SimulatedArray, type VolumeEntity } from '../../array'
import { idIn, link, resource, type Body } from '../body'
import { accepts, placesOf, type Place } from '../Place'
import { longText, references, text } from '../reader'
import type { RowService } from '../RowService'

const size = { type: 'integer', minimum: 1, maximum: Number.MAX_SAFE_INTEGER } as const
const newVolume = {
  type: 'object',
  required: ['Name', 'CapacityBytes', 'CapacitySources'],
  properties: {
    Name: text,
    Description: longText,
    CapacityBytes: size,
    ProvisioningPolicy: { enum: ['Thin', 'Fixed'] },
    CapacitySources: {
      type: 'array',
      minItems: 1,
      maxItems: 1,
      items: {
        type: 'object',
        required: ['ProvidingPools'],
        properties: {
          ProvidingPools: {
            type: 'object',
            required: ['Members'],
            properties: { Members: { ...references, minItems: 1, maxItems: 1 } },
          },
        },
      },
    },
  },
} as const
const changedVolume = {
  type: 'object',
  minProperties: 1,
  additionalProperties: false,
  properties: { DisplayName: text, CapacityBytes: size, Description: longText },
} as const

const type = 'Volume.v1_10_1.Volume'

/** Volumes: made, enlarged, renamed and removed. */
export function volumePlaces(array: SimulatedArray, nodes?: RowService): Place[] {
  const body = (each: VolumeEntity): Body => ({
    DisplayName: each.name,
    Description: each.description,
    Identifiers: [{ DurableNameFormat: 'NAA', DurableName: each.naa }],
    CapacityBytes: Number(each.sizeBytes),
    ProvisioningPolicy: each.isThin ? 'Thin' : 'Fixed',
    Capacity: { Data: { ConsumedBytes: Number(array.writtenBytes(each)), ProvisionedBytes: Number(each.sizeBytes) } },
    CapacitySources: [
      { Id: '0', Name: 'Source', ProvidingPools: { Members: [link(`Storage/1/StoragePools/${each.poolId}`)] } },
    ],
    ...(nodes === undefined ? {} : { Oem: { Mirefield: { LostBytes: Number(nodes.view.lostBytes(each)) } } }),
    Status: { State: each.isReady ? 'Enabled' : 'Starting', Health: 'OK' },
  })
  return placesOf<VolumeEntity>({
    path: 'Storage/1/Volumes/:volume',
    type,
    title: 'Volumes',
    members: () => array.all('volumes'),
    find: id => array.maybe('volumes', id),
    idOf: each => each.id,
    nameOf: each => each.name,
    body,
    create: accepts(newVolume, wanted => {
      const { volume, task } = blockVolumes.createVolume(array, {
        name: wanted.Name,
        description: wanted.Description ?? '',
        poolId: idIn(wanted.CapacitySources[0]?.ProvidingPools.Members[0]),
        sizeBytes: BigInt(wanted.CapacityBytes),
        isThin: wanted.ProvisioningPolicy !== 'Fixed',
      })
      const path = `Storage/1/Volumes/${volume.id}`
      return task === undefined ? { made: resource(path, type, volume.id, volume.name, body(volume)) } : { task }
    }),
    change: accepts(changedVolume, (wanted, { id }: VolumeEntity) => {
      if (wanted.DisplayName !== undefined) blockVolumes.renameVolume(array, id, wanted.DisplayName)
      if (wanted.Description !== undefined) blockVolumes.describeVolume(array, id, wanted.Description)
      const task =
        wanted.CapacityBytes === undefined
          ? undefined
          : blockVolumes.enlargeVolume(array, id, BigInt(wanted.CapacityBytes), wanted.Description ?? '')
      return task === undefined ? undefined : { task }
    }),
    remove: each => blockVolumes.removeVolume(array, each.id),
  })
}
