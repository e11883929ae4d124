import {
  badValue,
  blockGroups,
  blockMoves,
  blockSnapshots,
  blockVolumes,
  doneRatio,
  type SimulatedArray,
  type TaskEntity,
  type VolumeEntity,
} from '../../array'
import { idIn, link, resource, type Body } from '../body'
import { accepts, placesOf, type Place } from '../Place'
import { longText, references, text } from '../reader'
import type { RowService } from '../RowService'
import { mirrorBody } from './mirrors'
import { ceiling, ownPart, ownVolumePart } from './ownVolumeParts'
import { snapshotBody } from './snapshotBody'
import {
  copyActions,
  isSnapshot,
  sourceIn,
  volumeOnly,
  volumePath as pathOf,
  volumeType as type,
  type Shown,
} from './volumeActions'

const sources = {
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
} as const
const size = { type: 'integer', minimum: 1, maximum: Number.MAX_SAFE_INTEGER } as const
const policy = { enum: ['Thin', 'Fixed'] } as const
const newVolume = {
  type: 'object',
  required: ['Name', 'CapacityBytes', 'CapacitySources'],
  properties: {
    Name: text,
    Description: longText,
    CapacityBytes: size,
    ProvisioningPolicy: policy,
    CapacitySources: sources,
  },
} as const
/** How much of the drives' rate a move may take, where a maker has a word for it. */
const moveRate = {
  type: 'object',
  properties: { MoveRatePercent: { type: 'number', minimum: 1, maximum: 100 } },
} as const
const changedVolume = {
  type: 'object',
  minProperties: 1,
  additionalProperties: false,
  properties: {
    DisplayName: text,
    CapacityBytes: size,
    ProvisioningPolicy: policy,
    Description: longText,
    /** A volume is moved by naming the pool that it shall come from. */
    CapacitySources: sources,
    Oem: {
      type: 'object',
      properties: {
        TallisThorne: { type: 'object', properties: { ...moveRate.properties, Ceiling: ceiling } },
        Ferrow: { type: 'object', properties: { Ceiling: ceiling } },
      },
    },
  },
} as const
/** What of a volume may be changed: its pool, or its limits, its names, its size and how it takes its space. */
const changes = (array: SimulatedArray) =>
  accepts(changedVolume, (wanted, each: Shown) => {
    const { id } = volumeOnly(each)
    const poolId = idIn(wanted.CapacitySources?.[0]?.ProvidingPools.Members[0])
    if (poolId !== '') return { task: moved(array, id, poolId, wanted.Oem) }
    const limits = ownPart(array, wanted.Oem)?.Ceiling
    if (limits !== undefined)
      blockVolumes.limitVolume(array, id, {
        requestsPerSecond: limits.RequestsPerSecond,
        bytesPerSecond: limits.BytesPerSecond,
      })
    if (wanted.DisplayName !== undefined) blockVolumes.renameVolume(array, id, wanted.DisplayName)
    if (wanted.Description !== undefined) blockVolumes.describeVolume(array, id, wanted.Description)
    const note = wanted.Description ?? ''
    const converting =
      wanted.ProvisioningPolicy === undefined
        ? undefined
        : blockVolumes.convertVolume(array, id, wanted.ProvisioningPolicy === 'Thin', note)
    const task =
      wanted.CapacityBytes === undefined
        ? converting
        : blockVolumes.enlargeVolume(array, id, BigInt(wanted.CapacityBytes), note)
    return task === undefined ? undefined : { task }
  })

/** Volumes and their snapshots: made, enlarged, renamed, copied, restored and removed. Source: Swordfish, Volume and its replicas. */
export function volumePlaces(array: SimulatedArray, nodes?: RowService): Place[] {
  const body = (each: Shown) => (isSnapshot(each) ? snapshotBody(array, each) : volumeBody(array, each, nodes))
  return placesOf<Shown>({
    path: 'Storage/1/Volumes/:volume',
    type,
    title: 'Volumes',
    members: () => [...array.all('volumes'), ...array.all('snapshots')],
    find: id => array.maybe('volumes', id) ?? array.maybe('snapshots', id),
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
      return task === undefined
        ? { made: resource(pathOf(volume.id), type, volume.id, volume.name, body(volume)) }
        : { task }
    }),
    change: changes(array),
    remove: each =>
      isSnapshot(each) ? blockSnapshots.removeSnapshot(array, each.id) : blockVolumes.removeVolume(array, each.id),
    ...(array.blocks.copies === undefined ? {} : { actions: copyActions(array, body) }),
  })
}

const usualMovePercent = 40

/** @throws {Refused} where volumes of the system stay in the pool in which they were made */
function moved(
  array: SimulatedArray,
  id: string,
  poolId: string,
  own: { readonly TallisThorne?: { readonly MoveRatePercent?: number } } | undefined,
): TaskEntity {
  if (array.blocks.copies === undefined)
    throw badValue('The volume was not moved.', 'Volumes of a row stay in their pool.', 'Clone it there.')
  const asked = array.model.maker === 'Tallis & Thorne' ? own?.TallisThorne?.MoveRatePercent : undefined
  return blockMoves.moveVolume(array, id, poolId, (asked ?? usualMovePercent) / 100)
}

function volumeBody(array: SimulatedArray, each: VolumeEntity, nodes: RowService | undefined): Body {
  return {
    DisplayName: each.name,
    Description: each.description,
    Identifiers: [{ DurableNameFormat: 'NAA', DurableName: each.naa }],
    CapacityBytes: Number(each.sizeBytes),
    ProvisioningPolicy: each.isThin ? 'Thin' : 'Fixed',
    Capacity: { Data: { ConsumedBytes: Number(array.writtenBytes(each)), ProvisionedBytes: Number(each.sizeBytes) } },
    CapacitySources: sourceIn(each.poolId),
    ...operationsOf(array, each),
    ...groupLinks(array, each),
    ...(each.cloneOf === undefined
      ? {}
      : {
          ReplicaInfos: [
            {
              ReplicaRole: 'Target',
              ReplicaType: 'Clone',
              ReplicaUpdateMode: 'Adaptive',
              ReplicaState: 'Synchronized',
              ConsistencyState: 'Consistent',
              Replica: link(pathOf(each.cloneOf)),
            },
          ],
        }),
    ...mirrorBody(array, each),
    ...ownVolumePart(array, each, nodes),
    Status: { State: each.isReady ? 'Enabled' : 'Starting', Health: 'OK' },
  }
}

/** The groups that it is in. Source: Swordfish, Volume, Links. */
function groupLinks(array: SimulatedArray, { id }: VolumeEntity): Body {
  const group = blockGroups.groupOf(array, id)
  return group === undefined ? {} : { Links: { ConsistencyGroups: [link(`Storage/1/ConsistencyGroups/${group.id}`)] } }
}

/** What is being done with it. Source: Redfish, Volume, Operations. */
function operationsOf(array: SimulatedArray, { id, movingTo }: VolumeEntity): Body {
  const task =
    movingTo === undefined
      ? undefined
      : array.all('tasks').findLast(each => each.work === 'move-volume' && each.subjectId === id)
  return task === undefined
    ? {}
    : {
        Operations: [
          {
            OperationName: task.name,
            Operation: 'Replicate',
            PercentageComplete: Math.floor(doneRatio(task) * 100),
            AssociatedTask: link(`TaskService/Tasks/${task.id}`),
          },
        ],
      }
}
