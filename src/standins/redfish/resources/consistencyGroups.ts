import { blockGroups, blockSnapshots, type ConsistencyEntity, type SimulatedArray } from '../../array'
import { idIn, link, resource, type Body } from '../body'
import { accepts, placesOf, type Outcome, type Place } from '../Place'
import { longText, references, text } from '../reader'

const newGroup = {
  type: 'object',
  required: ['Name', 'Volumes'],
  properties: { Name: text, Description: longText, Volumes: references },
} as const
const changedGroup = {
  type: 'object',
  required: ['Volumes'],
  additionalProperties: false,
  properties: { Volumes: references },
} as const
const newReplica = {
  type: 'object',
  required: ['ConsistencyGroupName', 'ReplicaType', 'ReplicaUpdateMode'],
  properties: {
    ConsistencyGroupName: text,
    ReplicaType: { enum: ['Snapshot'] },
    ReplicaUpdateMode: { enum: ['Adaptive'] },
  },
} as const

const type = 'ConsistencyGroup.v1_2_0.ConsistencyGroup'
const path = (id: string) => `Storage/1/ConsistencyGroups/${id}`
const body = (each: ConsistencyEntity): Body => ({
  Description: each.description,
  ConsistencyType: 'CrashConsistent',
  ConsistencyMethod: 'Other',
  IsConsistent: true,
  Volumes: each.volumeIds.map(id => link(`Storage/1/Volumes/${id}`)),
  'Volumes@odata.count': each.volumeIds.length,
  Status: { State: 'Enabled', Health: 'OK' },
})

/** Groups of volumes whose snapshots are of one instant. Source: Swordfish, ConsistencyGroup. */
export const consistencyPlaces = (array: SimulatedArray): Place[] =>
  placesOf<ConsistencyEntity>({
    path: 'Storage/1/ConsistencyGroups/:group',
    type,
    title: 'Consistency groups',
    members: () => array.all('consistencyGroups'),
    find: id => array.maybe('consistencyGroups', id),
    idOf: each => each.id,
    nameOf: each => each.name,
    body,
    create: accepts(newGroup, wanted => {
      const group = blockGroups.formGroup(array, {
        name: wanted.Name,
        description: wanted.Description ?? '',
        volumeIds: wanted.Volumes.map(idIn),
      })
      return { made: resource(path(group.id), type, group.id, group.name, body(group)) }
    }),
    change: accepts(changedGroup, ({ Volumes }, each: ConsistencyEntity) => {
      blockGroups.setVolumes(array, each.id, Volumes.map(idIn))
      return undefined
    }),
    remove: each => blockGroups.dissolveGroup(array, each.id),
    actions: {
      CreateReplicaTarget: {
        accepts: accepts(
          newReplica,
          ({ ConsistencyGroupName }, each: ConsistencyEntity): Outcome => ({
            task: blockSnapshots.takeTogether(array, each.id, ConsistencyGroupName),
          }),
        ),
        allowable: { ReplicaType: ['Snapshot'], ReplicaUpdateMode: ['Adaptive'] },
      },
    },
  })
