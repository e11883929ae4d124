import { shareOf } from '@/core/layout'
import type { DriveEntity, PoolEntity, TaskEntity } from './entities'
import { layGroups } from './layGroups'
import { badValue, conflict } from './Refused'
import type { SimulatedArray } from './SimulatedArray'

const metadataRatio = 0.0075

export interface PoolRequest {
  readonly name: string
  readonly description: string
  readonly raidType: PoolEntity['raidType']
  readonly groups: readonly (readonly string[])[]
  readonly spares: readonly string[]
  readonly snapshotReserveRatio: number
}

export function createPool(array: SimulatedArray, request: PoolRequest): TaskEntity {
  const drives = takable(array, request)
  const { usableBytes } = layGroups(
    request.groups.map(group => group.map(id => BigInt(drives.get(id)?.capacityBytes ?? '0'))),
    request.raidType,
  )
  const rawBytes = [...drives.values()].reduce((sum, drive) => sum + BigInt(drive.capacityBytes), 0n)
  const metadataBytes = shareOf(rawBytes, metadataRatio)
  const pool: PoolEntity = {
    id: array.nextId('pools', request.name),
    name: request.name,
    description: request.description,
    raidType: request.raidType,
    groups: request.groups,
    spares: request.spares,
    isReady: false,
    rawBytes: `${rawBytes}`,
    usableBytes: `${usableBytes}`,
    spread: null,
    metadataBytes: `${metadataBytes}`,
    snapshotReserveBytes: `${shareOf(usableBytes - metadataBytes, request.snapshotReserveRatio)}`,
  }
  const placed = [...drives.values()].map(drive => array.entry('drives', placedIn(pool, drive)))
  const task = array.task(
    `Initialise pool ${pool.name}`,
    'initialise-pool',
    pool.id,
    request,
    lanesOf(array, request.groups.flat(), 0.8),
  )
  array.store.commit([...placed, array.entry('pools', pool), array.entry('tasks', task)])
  return task
}

function placedIn({ id, groups }: PoolEntity, drive: DriveEntity): DriveEntity {
  const groupIndex = groups.findIndex(group => group.includes(drive.id))
  const isSpare = groupIndex < 0
  return { ...drive, poolId: id, groupIndex: isSpare ? null : groupIndex, role: isSpare ? 'spare' : 'data' }
}

/** The drives that a pool is asked to be made of, by id. @throws {Refused} where the pool or one of them cannot be had */
function takable(array: SimulatedArray, { name, groups, spares }: PoolRequest): Map<string, DriveEntity> {
  const notMade = `Pool ${name} was not made.`
  if (array.all('pools').some(pool => pool.name === name))
    throw conflict(notMade, 'A pool of that name exists.', 'Choose another name.')
  const chosen = [...groups.flat(), ...spares]
  if (new Set(chosen).size !== chosen.length)
    throw badValue(notMade, 'A drive is named twice.', 'Name each drive once.')
  const drives = new Map(chosen.map(id => [id, array.one('drives', id)]))
  for (const { serial, role, isFailed } of drives.values())
    if (role !== 'unassigned' || isFailed)
      throw conflict(notMade, `Drive ${serial} is ${isFailed ? 'failed' : 'in use'}.`, 'Choose another drive.')
  return drives
}

export function removePool(array: SimulatedArray, id: string): void {
  const pool = array.one('pools', id)
  if (array.all('volumes').some(volume => volume.poolId === id)) {
    throw conflict(`Pool ${pool.name} was not removed.`, 'It holds volumes.', 'Remove its volumes first.')
  }
  const freed = array.all('drives').filter(drive => drive.poolId === id)
  const tasks = array.all('tasks').filter(task => task.subjectId === id && task.state === 'Running')
  array.store.commit([
    ...freed.map(drive => array.entry('drives', { ...drive, poolId: null, groupIndex: null, role: 'unassigned' })),
    ...tasks.map(task =>
      array.entry('tasks', {
        ...task,
        state: 'Exception',
        endedAt: array.clock.now(),
        message: 'The pool was removed.',
      }),
    ),
    array.gone('pools', id),
  ])
}

/** @param share of a drive's rate that the work gets; hosts have the rest */
export function lanesOf(array: SimulatedArray, driveIds: readonly string[], share: number): TaskEntity['lanes'] {
  return driveIds.map(id => {
    const drive = array.one('drives', id)
    return { bytes: Number(drive.capacityBytes), bytesPerSecond: drive.bytesPerSecond * share }
  })
}
