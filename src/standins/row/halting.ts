import type { TaskEntity } from '../array'
import type { SimulatedRow } from './SimulatedRow'

/** Why a running task of a row cannot go on; undefined where it can. */
export function haltedWhy(row: SimulatedRow, task: TaskEntity): string | undefined {
  if (task.work === 'form-cluster') return formingHalted(row)
  if (task.work === 'erase-drive') return erasureHalted(row, task.subjectId)
  return task.work === 'initialise-pool' ? layingOutHalted(row, task.subjectId) : undefined
}

function formingHalted(row: SimulatedRow): string | undefined {
  const [cluster] = row.all('clusters')
  if (cluster === undefined) return 'The cluster was dissolved.'
  const silent = cluster.nodeIds.find(id => !row.isAnswering(row.one('nodes', id)))
  return silent === undefined ? undefined : `${silent} does not answer.`
}

function erasureHalted(row: SimulatedRow, driveId: string): string | undefined {
  const drive = row.array.maybe('drives', driveId)
  const isGone = drive === undefined || drive.isPulled || drive.isFailed || !row.isAnswering(row.nodeOf(drive))
  return isGone ? 'The drive is no longer there.' : undefined
}

function layingOutHalted(row: SimulatedRow, poolId: string): string | undefined {
  const pool = row.array.maybe('pools', poolId)
  if (pool === undefined || pool.spread === null) return undefined
  const gone = row.array.all('drives').find(drive => drive.poolId === pool.id && !row.isReadable(drive))
  return gone === undefined ? undefined : `Drive ${gone.serial} in ${gone.enclosureId} does not answer.`
}
