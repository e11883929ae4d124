import type { Entry } from '../fleet'
import type { ConsistencyEntity } from './entities'
import { badValue, conflict } from './Refused'
import type { SimulatedArray } from './SimulatedArray'

interface GroupRequest {
  readonly name: string
  readonly description: string
  readonly volumeIds: readonly string[]
}

/** The group that a volume is in. */
export const groupOf = (array: SimulatedArray, volumeId: string): ConsistencyEntity | undefined =>
  array.all('consistencyGroups').find(each => each.volumeIds.includes(volumeId))

export function formGroup(array: SimulatedArray, { name, description, volumeIds }: GroupRequest): ConsistencyEntity {
  if (array.blocks.copies === undefined)
    throw badValue('No group was made.', 'This system keeps no snapshots.', 'Protect its volumes otherwise.')
  if (array.all('consistencyGroups').some(each => each.name === name))
    throw conflict(`Group ${name} was not made.`, 'A group of that name exists.', 'Choose another name.')
  const group = { id: array.nextId('consistencyGroups', name), name, description, volumeIds: [] }
  const whole = { ...group, volumeIds: members(array, group, volumeIds) }
  array.store.commit([array.entry('consistencyGroups', whole)])
  return whole
}

export function setVolumes(array: SimulatedArray, id: string, volumeIds: readonly string[]): void {
  const group = array.one('consistencyGroups', id)
  array.store.commit([array.entry('consistencyGroups', { ...group, volumeIds: members(array, group, volumeIds) })])
}

/** The volumes stay, and so do the snapshots that were taken of them. */
export const dissolveGroup = (array: SimulatedArray, id: string): void =>
  array.store.commit([array.gone('consistencyGroups', array.one('consistencyGroups', id).id)])

/** A volume that goes leaves its group. */
export function withoutVolume(array: SimulatedArray, volumeId: string): Entry[] {
  const group = groupOf(array, volumeId)
  return group === undefined
    ? []
    : [
        array.entry('consistencyGroups', {
          ...group,
          volumeIds: group.volumeIds.filter(each => each !== volumeId),
        }),
      ]
}

function members(array: SimulatedArray, group: ConsistencyEntity, volumeIds: readonly string[]): readonly string[] {
  for (const id of volumeIds) {
    const volume = array.one('volumes', id)
    const other = groupOf(array, id)
    if (other !== undefined && other.id !== group.id)
      throw conflict(
        `${volume.name} was not put into ${group.name}.`,
        `It is in ${other.name}.`,
        'Take it out of that group first.',
      )
  }
  return [...new Set(volumeIds)]
}
