import type { Entry } from '../fleet'
import type { MirrorEntity, PoolEntity, TaskEntity, VolumeEntity } from './entities'
import { failedWhy } from './moves'
import { poolWrittenBytes } from './poolSpace'
import { lanesOf } from './pools'
import { badValue, conflict } from './Refused'
import { answers, otherEnd, type OtherEnd } from './otherEnd'
import { naaFor, type SimulatedArray } from './SimulatedArray'

export { otherEnd, type OtherEnd } from './otherEnd'

/** What the line between two sites carries. */
const lineBytesPerSecond = 1.25e9

export interface MirrorRequest {
  /** Serial of the array to which it is mirrored. */
  readonly partner: string
  readonly poolId: string
  readonly name: string
  /** Of the drives' and the line's rate that copying may take (0 to 1). */
  readonly share: number
}

/** Why something that alters what a volume is cannot be done meanwhile; undefined where it is not mirrored. */
export const mirroredWhy = ({ mirror }: VolumeEntity): string | undefined =>
  mirror === undefined ? undefined : 'It is mirrored to another system.'

/**
 * Begins to mirror a volume to another array. Hosts go on; the other end bears the same WWN and is shown to nobody until it holds all, and
 * from then on gets every write before the host is told that it is written.
 */
export function mirrorVolume(array: SimulatedArray, id: string, request: MirrorRequest): TaskEntity {
  const volume = array.one('volumes', id)
  const partner = array.partners.find(({ model }) => model.serial === request.partner)
  const refused = (why: string) => conflict(`${volume.name} is not mirrored.`, why, 'Remove the cause, then ask again.')
  if (partner === undefined) throw refused(`${request.partner} is no partner of ${array.model.name}.`)
  if (!answers(partner)) throw refused(`${partner.model.name} does not answer.`)
  const to = partner.maybe('pools', request.poolId)
  if (to === undefined)
    throw badValue(`${volume.name} is not mirrored.`, `${partner.model.name} has no such pool.`, 'Name a pool of it.')
  const bytes = array.writtenBytes(volume)
  const why = sourceTrouble(array, volume) ?? targetTrouble(partner, to, request.name, bytes)
  if (why !== undefined) throw refused(why)
  const target = arriving(partner, volume, { array, to, name: request.name })
  const task = filling(array, volume, { array: partner, pool: to }, request.share)
  const mirror: MirrorEntity = { role: 'source', partner: request.partner, volumeId: target.id, state: 'copying' }
  array.store.commit([
    array.entry('volumes', { ...volume, mirror }),
    partner.entry('volumes', target),
    array.entry('tasks', task),
  ])
  return task
}

/** The work that brings all of a volume over. @param share of the drives' and the line's rate (0 to 1) */
function filling(
  array: SimulatedArray,
  volume: VolumeEntity,
  to: { readonly array: SimulatedArray; readonly pool: PoolEntity },
  share: number,
): TaskEntity {
  const rate = (one: SimulatedArray, pool: PoolEntity) =>
    lanesOf(one, pool.groups.flat(), share).reduce((sum, lane) => sum + lane.bytesPerSecond, 0)
  const from = array.one('pools', volume.poolId)
  const bytesPerSecond = Math.min(rate(array, from), rate(to.array, to.pool), lineBytesPerSecond * share)
  const bytes = array.writtenBytes(volume)
  return array.task(
    `Mirror ${volume.name} to ${to.array.model.name}`,
    'mirror-volume',
    volume.id,
    { partner: to.array.model.serial, pool: to.pool.id, bytes, isAgain: volume.mirror !== undefined },
    [{ bytes: Number(bytes), bytesPerSecond }],
  )
}

/**
 * Fills a broken mirror again, from the beginning: which parts differ it has not kept. What the other end holds counts for nothing until
 * all has come over.
 */
export function resumeMirror(array: SimulatedArray, id: string, share: number): TaskEntity {
  const volume = array.one('volumes', id)
  const what = `The mirror of ${volume.name} is not filled again.`
  const { mirror, other } = bothEnds(array, volume, what)
  if (mirror.role !== 'source') throw conflict(what, 'It is the end that follows.', 'Ask the other end.')
  if (mirror.state !== 'broken') throw conflict(what, `The mirror is ${mirror.state}.`, 'Nothing is to be filled.')
  const pool = other.array.one('pools', other.volume.poolId)
  const left = other.array.poolDataBytes(pool) - poolWrittenBytes(other.array, pool.id)
  const more = array.writtenBytes(volume) - other.array.writtenBytes(other.volume)
  const why =
    failedWhy(other.array, pool) ?? (more > left ? `Pool ${pool.name} has ${left} bytes left of ${more}.` : undefined)
  if (why !== undefined) throw conflict(what, why, 'Remove the cause, then ask again.')
  const task = filling(array, volume, { array: other.array, pool }, share)
  const state = 'copying' as const
  array.store.commit([
    array.entry('volumes', { ...volume, mirror: { ...mirror, state } }),
    other.array.entry('volumes', { ...other.volume, mirror: { ...other.mirror, state } }),
    array.entry('tasks', task),
  ])
  return task
}

function sourceTrouble(array: SimulatedArray, volume: VolumeEntity): string | undefined {
  if (volume.mirror !== undefined) return 'It is mirrored already.'
  if (volume.movingTo !== undefined) return 'It is being moved.'
  if (!volume.isReady) return 'It is still being zeroed.'
  if (volume.cloneOf !== undefined) return 'It is a clone that still shares with its source.'
  return array.all('fileSystems').some(each => each.volumeId === volume.id)
    ? 'It carries a file system of the array.'
    : undefined
}

function targetTrouble(partner: SimulatedArray, to: PoolEntity, name: string, bytes: bigint): string | undefined {
  if (!to.isReady) return `Pool ${to.name} is still being initialised.`
  if ([...partner.all('volumes'), ...partner.all('snapshots')].some(each => each.name === name))
    return `${partner.model.name} has something named ${name}.`
  const free = partner.poolDataBytes(to) - poolWrittenBytes(partner, to.id)
  return failedWhy(partner, to) ?? (bytes > free ? `Pool ${to.name} has ${free} bytes left of ${bytes}.` : undefined)
}

/** The other end while it is filled: it takes the room of what it will hold. */
function arriving(
  partner: SimulatedArray,
  { naa, sizeBytes, isThin, workloadBytes, id }: VolumeEntity,
  { array, to, name }: { readonly array: SimulatedArray; readonly to: PoolEntity; readonly name: string },
): VolumeEntity {
  return {
    ...{ id: partner.nextId('volumes', name), poolId: to.id, name, description: '', naa, sizeBytes, isThin },
    ...{ workloadBytes, storedExtents: 0, isReady: false },
    mirror: { role: 'target', partner: array.model.serial, volumeId: id, state: 'copying' },
  }
}

/** Why a mirror cannot be filled any further. */
export function mirrorHalted(array: SimulatedArray, task: TaskEntity): string | undefined {
  const volume = array.maybe('volumes', task.subjectId)
  const other = volume === undefined ? undefined : otherEnd(array, volume)
  if (other === undefined) return 'The volume to which it was mirrored is gone.'
  if (!answers(other.array)) return `${other.array.model.name} does not answer.`
  return failedWhy(other.array, other.array.one('pools', other.volume.poolId))
}

/** All has come over: both ends hold the same from now on. */
export function mirrored(array: SimulatedArray, task: TaskEntity): Entry[] {
  const volume = array.maybe('volumes', task.subjectId)
  const other = volume === undefined ? undefined : otherEnd(array, volume)
  if (volume?.mirror === undefined || other?.volume.mirror === undefined) return []
  // What it held before, of a mirror that was broken, may have been given up at the source since.
  other.array.blocks.forget(other.volume.id)
  let storedExtents = 0
  for (const { offset, data } of array.blocks.copies?.stored(volume.id) ?? [])
    storedExtents = other.array.blocks.write(other.volume.id, offset, data)
  const state = 'synchronised' as const
  return [
    array.entry('volumes', { ...volume, mirror: { ...volume.mirror, state } }),
    other.array.entry('volumes', {
      ...other.volume,
      ...{ isReady: true, storedExtents, workloadBytes: volume.workloadBytes },
      mirror: { ...other.volume.mirror, state },
    }),
  ]
}

/** It was not filled: the volume stands alone again, or is as far behind as before, and what had come over is of no use. */
export function notMirrored(array: SimulatedArray, task: TaskEntity): Entry[] {
  const volume = array.maybe('volumes', task.subjectId)
  if (task.work !== 'mirror-volume' || volume === undefined) return []
  const { isAgain } = JSON.parse(task.jsonBody) as { readonly isAgain?: boolean }
  const alone = array.entry('volumes', { ...volume, mirror: undefined })
  return [...(isAgain === true ? brokenAt({ array, volume }) : [alone]), ...brokenAt(otherEnd(array, volume))]
}

const brokenAt = (end: OtherEnd | undefined): Entry[] =>
  end?.volume.mirror === undefined
    ? []
    : [end.array.entry('volumes', { ...end.volume, mirror: { ...end.volume.mirror, state: 'broken' } })]

/** Writes or gives up bytes of a volume, and of the other end of its mirror, before anybody is told. */
function through(array: SimulatedArray, id: string, act: (one: SimulatedArray, volumeId: string) => number): void {
  const keep = (one: SimulatedArray, volume: VolumeEntity): Entry[] => {
    const storedExtents = act(one, volume.id)
    return storedExtents === volume.storedExtents ? [] : [one.entry('volumes', { ...volume, storedExtents })]
  }
  const volume = array.one('volumes', id)
  const entries = keep(array, volume)
  const other = volume.mirror?.state === 'synchronised' ? otherEnd(array, volume) : undefined
  if (other === undefined) return array.store.commit(entries)
  if (answers(other.array)) return array.store.commit([...entries, ...keep(other.array, other.volume)])
  // The host is not kept waiting for an end that is gone: from now on they differ.
  array.store.commit(entries)
  array.store.commit([...brokenAt({ array, volume: array.one('volumes', id) }), ...brokenAt(other)])
}

export const write = (array: SimulatedArray, id: string, offset: bigint, data: Buffer): void =>
  through(array, id, (one, volumeId) => one.blocks.write(volumeId, offset, data))

export const discard = (array: SimulatedArray, id: string, offset: bigint, length: number): void =>
  through(array, id, (one, volumeId) => one.blocks.discard(volumeId, offset, length))

/** Both ends of a mirror that holds. @throws {Refused} where it does not, or the other end does not answer */
function bothEnds(array: SimulatedArray, volume: VolumeEntity, what: string) {
  const other = otherEnd(array, volume)
  const refused = (why: string) => conflict(what, why, 'Mirror it anew.')
  if (volume.mirror === undefined || other?.volume.mirror === undefined) throw refused('It is not mirrored.')
  if (!answers(other.array)) throw refused(`${other.array.model.name} does not answer.`)
  return { mirror: volume.mirror, other: { ...other, mirror: other.volume.mirror } }
}

/** Hosts read and write the other end from now on, and this one follows it; what a workload asks, it asks there. */
export function reverseMirror(array: SimulatedArray, id: string): void {
  const volume = array.one('volumes', id)
  const what = `${volume.name} was not switched.`
  const { mirror, other } = bothEnds(array, volume, what)
  if (mirror.role !== 'source') throw conflict(what, 'It is the end that follows.', 'Ask the other end.')
  if (mirror.state !== 'synchronised') throw conflict(what, `The mirror is ${mirror.state}.`, 'Wait until it holds.')
  const { course, load, changedBytesPerDay, ...still } = volume
  array.store.commit([
    array.entry('volumes', { ...still, mirror: { ...mirror, role: 'target' } }),
    other.array.entry('volumes', {
      ...other.volume,
      ...(course === undefined ? {} : { course }),
      ...(load === undefined ? {} : { load }),
      ...(changedBytesPerDay === undefined ? {} : { changedBytesPerDay }),
      workloadBytes: volume.workloadBytes,
      mirror: { ...other.mirror, role: 'source' },
    }),
  ])
}

/** Ends a mirror: the end that followed keeps what it holds, under a WWN of its own. */
export function partMirror(array: SimulatedArray, id: string): void {
  const volume = array.one('volumes', id)
  const { mirror, other } = bothEnds(array, volume, `The mirror of ${volume.name} was not ended.`)
  if (mirror.state === 'copying')
    throw conflict(`The mirror of ${volume.name} was not ended.`, 'It is still being filled.', 'Stop its task.')
  const alone = (one: SimulatedArray, { mirror: ended, ...rest }: VolumeEntity) =>
    one.entry('volumes', ended?.role === 'target' ? { ...rest, naa: naaFor(one, `parted ${rest.id}`) } : rest)
  array.store.commit([alone(array, volume), alone(other.array, other.volume)])
}
