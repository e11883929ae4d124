import type { Ceiling, PoolEntity, TaskEntity, VolumeEntity } from './entities'
import { withoutVolume } from './consistencyGroups'
import { poolWrittenBytes } from './poolSpace'
import { lanesOf } from './pools'
import { badValue, conflict } from './Refused'
import { naaFor, type SimulatedArray } from './SimulatedArray'
import { heldBack } from './snapshots'
import { mirroredWhy } from './mirrors'

export interface VolumeRequest {
  readonly name: string
  readonly description: string
  readonly poolId: string
  readonly sizeBytes: bigint
  readonly isThin: boolean
}

/** @throws {Refused} */
function canBeMade(array: SimulatedArray, request: VolumeRequest, pool: PoolEntity): void {
  if (!pool.isReady)
    throw conflict(
      `Volume ${request.name} was not made.`,
      `Pool ${pool.name} is still being initialised.`,
      'Wait for its task.',
    )
  if (array.all('volumes').some(volume => volume.name === request.name)) {
    throw conflict(`Volume ${request.name} was not made.`, 'A volume of that name exists.', 'Choose another name.')
  }
  if (request.sizeBytes <= 0n)
    throw badValue('The volume was not made.', 'Its size must be above zero.', 'Give a size.')
  const freeBytes = array.poolDataBytes(pool) - poolWrittenBytes(array, pool.id)
  if (!request.isThin && request.sizeBytes > freeBytes) {
    throw conflict(
      `Volume ${request.name} was not made.`,
      `Pool ${pool.name} has ${freeBytes} bytes left.`,
      'Ask for less, or for a thin volume.',
    )
  }
}

/** @returns the task of a thick volume, whose extents are zeroed first; undefined for a thin one, which is ready at once */
export function createVolume(
  array: SimulatedArray,
  request: VolumeRequest,
): { readonly volume: VolumeEntity; readonly task: TaskEntity | undefined } {
  const pool = array.one('pools', request.poolId)
  canBeMade(array, request, pool)
  const id = array.nextId('volumes', request.name)
  const volume: VolumeEntity = {
    id,
    poolId: pool.id,
    name: request.name,
    description: request.description,
    naa: naaFor(array, id),
    sizeBytes: `${request.sizeBytes}`,
    isThin: request.isThin,
    workloadBytes: '0',
    storedExtents: 0,
    isReady: request.isThin,
  }
  if (request.isThin) {
    array.store.commit([array.entry('volumes', volume)])
    return { volume, task: undefined }
  }
  const task = zeroing(array, volume, Number(request.sizeBytes), request)
  array.store.commit([array.entry('volumes', volume), array.entry('tasks', task)])
  return { volume, task }
}

/** @returns the task that zeroes the new part of a thick volume, undefined for a thin one */
export function enlargeVolume(
  array: SimulatedArray,
  id: string,
  sizeBytes: bigint,
  description: string,
): TaskEntity | undefined {
  const volume = array.one('volumes', id)
  const pool = array.one('pools', volume.poolId)
  const addedBytes = sizeBytes - BigInt(volume.sizeBytes)
  const mirrored = mirroredWhy(volume)
  if (mirrored !== undefined) throw conflict(`${volume.name} was not resized.`, mirrored, 'End the mirror first.')
  if (addedBytes < 0n)
    throw badValue(`${volume.name} was not resized.`, 'A volume cannot be made smaller.', 'Give a larger size.')
  if (!volume.isThin && addedBytes > array.poolDataBytes(pool) - poolWrittenBytes(array, pool.id)) {
    throw conflict(`${volume.name} was not resized.`, `Pool ${pool.name} has too little left.`, 'Ask for less.')
  }
  const larger = array.entry('volumes', { ...volume, sizeBytes: `${sizeBytes}` })
  if (volume.isThin || addedBytes === 0n) {
    array.store.commit([larger])
    return undefined
  }
  const task = zeroing(array, volume, Number(addedBytes), { description })
  array.store.commit([larger, array.entry('tasks', task)])
  return task
}

/** Has a volume take all of its size at once, or only what is written of it. @returns the task that zeroes what it did not have yet */
export function convertVolume(
  array: SimulatedArray,
  id: string,
  isThin: boolean,
  description: string,
): TaskEntity | undefined {
  const volume = array.one('volumes', id)
  const refuse = (why: string, remedy: string) => conflict(`${volume.name} was not converted.`, why, remedy)
  if (volume.isThin === isThin) return undefined
  if (volume.cloneOf !== undefined) throw refuse('It shares with the snapshot that it was made of.', 'Split it first.')
  const mirrored = mirroredWhy(volume)
  if (mirrored !== undefined) throw refuse(mirrored, 'End the mirror first.')
  const converted = { ...volume, isThin }
  if (isThin) {
    array.store.commit([array.entry('volumes', converted)])
    return undefined
  }
  const pool = array.one('pools', volume.poolId)
  const addedBytes = BigInt(volume.sizeBytes) - array.writtenBytes(volume)
  if (addedBytes > array.poolDataBytes(pool) - poolWrittenBytes(array, pool.id))
    throw refuse(`Pool ${pool.name} has too little left.`, 'Make room first, or leave it thin.')
  const task = zeroing(array, volume, Number(addedBytes), { description })
  array.store.commit([array.entry('volumes', converted), array.entry('tasks', task)])
  return task
}

export function renameVolume(array: SimulatedArray, id: string, name: string): void {
  if (array.all('volumes').some(volume => volume.name === name && volume.id !== id))
    throw conflict('The volume was not renamed.', `A volume named ${name} exists.`, 'Choose another name.')
  array.store.commit([array.entry('volumes', { ...array.one('volumes', id), name })])
}

export function limitVolume(array: SimulatedArray, id: string, ceiling: Ceiling): void {
  array.store.commit([array.entry('volumes', { ...array.one('volumes', id), ceiling })])
}

export function describeVolume(array: SimulatedArray, id: string, description: string): void {
  array.store.commit([array.entry('volumes', { ...array.one('volumes', id), description })])
}

export function removeVolume(array: SimulatedArray, id: string): void {
  const volume = array.one('volumes', id)
  if (array.all('connections').some(connection => connection.volumeId === id)) {
    throw conflict(`${volume.name} was not removed.`, 'It is mapped to hosts.', 'Remove its mappings first.')
  }
  const carried = array.all('fileSystems').find(each => each.volumeId === id)
  const share = array.all('fileShares').find(each => each.fileSystemId === carried?.id)
  if (share !== undefined)
    throw conflict(`${volume.name} was not removed.`, `It is shared as ${share.name}.`, 'Take the share away first.')
  if (volume.mirror !== undefined && volume.mirror.state !== 'broken')
    throw conflict(`${volume.name} was not removed.`, 'It is mirrored to another system.', 'End the mirror first.')
  const why = heldBack(array, id)
  if (why !== undefined) throw conflict(`${volume.name} was not removed.`, why, 'Remove its snapshots first.')
  array.store.commit([
    array.gone('volumes', id),
    array.gone('lineages', id),
    ...withoutVolume(array, id),
    ...(carried === undefined ? [] : [array.gone('fileSystems', carried.id)]),
  ])
  array.blocks.forget(id)
}

function zeroing(array: SimulatedArray, volume: VolumeEntity, bytes: number, body: object): TaskEntity {
  const pool = array.one('pools', volume.poolId)
  const rate = lanesOf(array, pool.groups.flat(), 0.6).reduce((sum, lane) => sum + lane.bytesPerSecond, 0)
  return array.task(`Zero ${volume.name}`, 'zero-volume', volume.id, body, [{ bytes, bytesPerSecond: rate }])
}
