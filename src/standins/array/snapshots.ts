import type { Entry } from '../fleet'
import type { SnapshotEntity, TaskEntity, VolumeEntity } from './entities'
import type { ByteCopies } from './BlockStore'
import { lineageOf, restoredTo, snapshotsOf, taken } from './lineage'
import { lanesOf } from './pools'
import { badValue, conflict, Refused } from './Refused'
import { mirroredWhy, otherEnd } from './mirrors'
import { naaFor, type SimulatedArray } from './SimulatedArray'

/** What a controller may have acknowledged and not yet written: it reaches the drives before a snapshot is consistent. */
const cachedBytes = 768e6
/** Of the drives' rate that copying takes. */
const copyShare = 0.4

/** @throws {Refused} where the array keeps no copies */
function copiesOf(array: SimulatedArray): ByteCopies {
  const { copies } = array.blocks
  if (copies !== undefined) return copies
  throw new Refused(501, 'Base.1.18.ActionNotSupported', {
    what: 'No replica was made.',
    why: 'This system keeps no snapshots.',
    remedy: 'Protect its volumes otherwise.',
  })
}

function freeName(array: SimulatedArray, name: string): void {
  const isTaken = [...array.all('volumes'), ...array.all('snapshots')].some(each => each.name === name)
  if (isTaken) throw conflict(`${name} was not made.`, 'Something of that name exists.', 'Choose another name.')
}

/**
 * A snapshot holds what had been acknowledged when it was asked for; it is consistent when that has reached the drives. Of a volume whose
 * mirror holds, one of the same name and instant is taken at the other end.
 */
export function takeSnapshot(array: SimulatedArray, volumeId: string, name: string): TaskEntity {
  const volume = array.one('volumes', volumeId)
  const isAlike = volume.mirror?.state === 'synchronised' && volume.mirror.role === 'source'
  const other = isAlike ? otherEnd(array, volume) : undefined
  const instant = array.clock.now()
  // Whether both can be taken is known before either is.
  if (other !== undefined) canBeTaken(other.array, other.volume, name)
  const own = flushed(array, volumeId, name, instant)
  const far = other === undefined ? [] : flushed(other.array, other.volume.id, name, instant).entries
  array.store.commit([...own.entries, ...far])
  return own.task
}

function flushed(array: SimulatedArray, volumeId: string, name: string, instant: number) {
  const { entries, snapshot, bytesPerSecond } = frozen(array, volumeId, name, instant)
  const task = array.task(`Snapshot ${name}`, 'flush-snapshot', snapshot.id, { VolumeName: name }, [
    { bytes: cachedBytes, bytesPerSecond },
  ])
  return { task, entries: [...entries, array.entry('tasks', task)] }
}

/** Of all volumes of a group at one instant: each bears the name of its volume and that of the whole. */
export function takeTogether(array: SimulatedArray, groupId: string, name: string): TaskEntity {
  const group = array.one('consistencyGroups', groupId)
  // All of them can be taken before any is.
  for (const id of group.volumeIds)
    canBeTaken(array, array.one('volumes', id), `${array.one('volumes', id).name}.${name}`)
  // Nothing is written between them: requests are served one at a time.
  const instant = array.clock.now()
  const all = group.volumeIds.map(id => frozen(array, id, `${array.one('volumes', id).name}.${name}`, instant))
  if (all.length === 0)
    throw conflict(`${name} was not made.`, `${group.name} has no volumes.`, 'Put volumes into it first.')
  const rate = Math.min(...all.map(each => each.bytesPerSecond))
  const task = array.task(
    `Snapshots ${name} of ${group.name}`,
    'flush-group',
    groupId,
    { ConsistencyGroupName: name },
    [{ bytes: cachedBytes, bytesPerSecond: rate }],
  )
  const entries = all.flatMap(each => [
    ...each.entries.slice(0, 1),
    array.entry('snapshots', { ...each.snapshot, takenBy: task.id }),
  ])
  array.store.commit([...entries, array.entry('tasks', task)])
  return task
}

function canBeTaken(array: SimulatedArray, volume: VolumeEntity, name: string): void {
  if (!volume.isReady)
    throw conflict(`${name} was not made.`, `${volume.name} is still being zeroed.`, 'Wait for its task.')
  freeName(array, name)
}

/** Freezes what a volume is now. @returns what is to be committed for it: the volume's versions, then the snapshot */
function frozen(array: SimulatedArray, volumeId: string, name: string, takenAt: number) {
  const copies = copiesOf(array)
  const volume = array.one('volumes', volumeId)
  canBeTaken(array, volume, name)
  const pool = array.one('pools', volume.poolId)
  const lineage = taken(lineageOf(array, volume))
  const id = array.nextId('snapshots', `${volumeId}/${name}`)
  const snapshot: SnapshotEntity = {
    id,
    volumeId,
    name,
    naa: naaFor(array, `snapshot ${id}`),
    sizeBytes: volume.sizeBytes,
    takenAt,
    number: lineage.taken,
    workloadBytes: volume.workloadBytes,
    isConsistent: false,
  }
  copies.freeze(volumeId, id)
  const bytesPerSecond = lanesOf(array, pool.groups.flat(), 0.8).reduce((sum, lane) => sum + lane.bytesPerSecond, 0)
  return { entries: [array.entry('lineages', lineage), array.entry('snapshots', snapshot)], snapshot, bytesPerSecond }
}

export function removeSnapshot(array: SimulatedArray, id: string): void {
  const snapshot = array.one('snapshots', id)
  const clone = array.all('volumes').find(each => each.cloneOf === id)
  if (clone !== undefined)
    throw conflict(
      `${snapshot.name} was not removed.`,
      `${clone.name} is a clone of it.`,
      'Split or remove the clone first.',
    )
  if (array.all('connections').some(connection => connection.volumeId === id))
    throw conflict(`${snapshot.name} was not removed.`, 'It is shown to hosts.', 'Remove its mappings first.')
  array.store.commit([array.gone('snapshots', id)])
  array.blocks.forget(id)
}

export interface CloneRequest {
  readonly name: string
  readonly poolId: string
}

/** A clone can be read and written at once. In another pool it is copied meanwhile; in the same it shares what it does not write. */
export function cloneSnapshot(
  array: SimulatedArray,
  snapshotId: string,
  { name, poolId }: CloneRequest,
): { readonly volume: VolumeEntity; readonly task: TaskEntity | undefined } {
  const copies = copiesOf(array)
  const snapshot = array.one('snapshots', snapshotId)
  const source = array.one('volumes', snapshot.volumeId)
  const pool = array.one('pools', poolId)
  if (!snapshot.isConsistent)
    throw conflict(`${name} was not made.`, `${snapshot.name} is not consistent yet.`, 'Wait for its task.')
  freeName(array, name)
  const id = array.nextId('volumes', name)
  const volume: VolumeEntity = {
    id,
    poolId: pool.id,
    name,
    description: '',
    naa: naaFor(array, id),
    sizeBytes: snapshot.sizeBytes,
    isThin: true,
    workloadBytes: '0',
    storedExtents: 0,
    isReady: true,
    cloneOf: snapshotId,
  }
  copies.freeze(snapshotId, id)
  const ready = { ...volume, storedExtents: snapshotExtents(array, id) }
  const task = pool.id === source.poolId ? undefined : copying(array, ready, snapshot)
  array.store.commit([array.entry('volumes', ready), ...(task === undefined ? [] : [array.entry('tasks', task)])])
  return { volume: ready, task }
}

const snapshotExtents = (array: SimulatedArray, id: string) => array.blocks.discard(id, 0n, 0)

/** Lets a clone stand alone: what it shares is copied. */
export function splitClone(array: SimulatedArray, id: string): TaskEntity {
  const clone = array.one('volumes', id)
  if (clone.cloneOf === undefined)
    throw badValue(`${clone.name} was not split.`, 'It is a clone of nothing.', 'Nothing is to be done.')
  const task = copying(array, clone, array.one('snapshots', clone.cloneOf))
  array.store.commit([array.entry('tasks', task)])
  return task
}

function copying(array: SimulatedArray, clone: VolumeEntity, { workloadBytes }: SnapshotEntity): TaskEntity {
  const pool = array.one('pools', clone.poolId)
  const rate = lanesOf(array, pool.groups.flat(), copyShare).reduce((sum, lane) => sum + lane.bytesPerSecond, 0)
  const bytes = Number(workloadBytes) + clone.storedExtents * 2 ** 20
  return array.task(`Copy to ${clone.name}`, 'copy-clone', clone.id, {}, [{ bytes, bytesPerSecond: rate }])
}

/** Takes a volume back to what a snapshot holds: at once for hosts; what differs is moved meanwhile. */
export function restoreVolume(array: SimulatedArray, volumeId: string, snapshotId: string): TaskEntity {
  const copies = copiesOf(array)
  const volume = array.one('volumes', volumeId)
  const snapshot = array.one('snapshots', snapshotId)
  if (snapshot.volumeId !== volumeId)
    throw badValue(
      `${volume.name} was not restored.`,
      `${snapshot.name} is of another volume.`,
      'Name a snapshot of its own.',
    )
  if (!snapshot.isConsistent)
    throw conflict(`${volume.name} was not restored.`, `${snapshot.name} is not consistent yet.`, 'Wait for its task.')
  const mirrored = mirroredWhy(volume)
  if (mirrored !== undefined) throw conflict(`${volume.name} was not restored.`, mirrored, 'End the mirror first.')
  if (BigInt(snapshot.sizeBytes) < BigInt(volume.sizeBytes))
    throw conflict(
      `${volume.name} was not restored.`,
      'It has been enlarged since, and a volume is never made smaller.',
      'Clone the snapshot instead.',
    )
  const lineage = restoredTo(lineageOf(array, volume), snapshot.number)
  const differs = lineage.dead.reduce((sum, { last, bytes }) => (last === lineage.taken ? sum + bytes : sum), 0)
  const storedExtents = copies.replace(volumeId, snapshotId)
  const pool = array.one('pools', volume.poolId)
  const rate = lanesOf(array, pool.groups.flat(), copyShare).reduce((sum, lane) => sum + lane.bytesPerSecond, 0)
  const task = array.task(`Restore ${volume.name}`, 'restore-volume', volumeId, {}, [
    { bytes: Math.max(differs, 64e6), bytesPerSecond: rate },
  ])
  array.store.commit([
    array.entry('lineages', lineage),
    array.entry('volumes', { ...volume, workloadBytes: snapshot.workloadBytes, storedExtents }),
    array.entry('tasks', task),
  ])
  return task
}

/** What the end of such work makes of what it was about. */
export function endedCopy(array: SimulatedArray, task: TaskEntity): Entry[] {
  if (task.work === 'flush-group')
    return array
      .all('snapshots')
      .filter(each => each.takenBy === task.id)
      .map(each => array.entry('snapshots', { ...each, isConsistent: true }))
  const snapshot = array.maybe('snapshots', task.subjectId)
  if (task.work === 'flush-snapshot')
    return snapshot === undefined ? [] : [array.entry('snapshots', { ...snapshot, isConsistent: true })]
  const volume = array.maybe('volumes', task.subjectId)
  if (task.work !== 'copy-clone' || volume?.cloneOf === undefined) return []
  const { cloneOf, ...alone } = volume
  const source = array.one('snapshots', cloneOf)
  copiesOf(array).separate(volume.id)
  const whole = `${BigInt(volume.workloadBytes) + BigInt(source.workloadBytes)}`
  return [array.entry('volumes', { ...alone, workloadBytes: whole })]
}

/** Why a volume cannot be removed. */
export const heldBack = (array: SimulatedArray, volumeId: string): string | undefined => {
  const count = snapshotsOf(array, volumeId).length
  return count === 0 ? undefined : `It has ${count} snapshot${count === 1 ? '' : 's'}.`
}
