import type { SimulatedArray } from './SimulatedArray'
import { arrived, moveHalted, notMoved } from './moves'
import { conflict } from './Refused'
import { mirrored, mirrorHalted, notMirrored } from './mirrors'
import { endedCopy } from './snapshots'
import type { TaskEntity } from './entities'
import type { Entry } from '../fleet'

/** How much of a task is done, from what its drives have written: each lane gives its rate until its share is done. */
export function doneRatio(task: TaskEntity): number {
  const total = task.lanes.reduce((sum, lane) => sum + lane.bytes, 0)
  const done = task.lanes.reduce((sum, lane) => sum + Math.min(lane.bytes, lane.bytesPerSecond * task.workedSeconds), 0)
  return total === 0 ? 1 : done / total
}

/** How long its slowest lane works, in fleet seconds. */
const neededSeconds = (task: TaskEntity) =>
  Math.max(0, ...task.lanes.map(lane => (lane.bytes === 0 ? 0 : lane.bytes / lane.bytesPerSecond)))

/** Lets an array's running tasks work for some fleet seconds. Time in which the process was not running is no work. */
export function work(array: SimulatedArray, seconds: number): void {
  const fault = array.faults.all().find(each => each.kind === 'task-fails' && each.target === array.model.name)
  for (const task of array.all('tasks').filter(each => each.state === 'Running')) {
    // A task that began since the clock last struck has worked since it began only.
    const own = Math.min(seconds, Math.max(0, array.clock.now() - task.startedAt) / 1000)
    const worked: TaskEntity = { ...task, workedSeconds: task.workedSeconds + own }
    if (fault !== undefined && doneRatio(worked) >= fault.atRatio) {
      array.faults.strikes(array.model.name, 'task-fails')
      array.store.commit(failed(array, task, 'The drive firmware reported an internal error.'))
      continue
    }
    const halted = haltedWhy(array, task)
    if (halted !== undefined) {
      array.store.commit(failed(array, task, halted))
      continue
    }
    array.extraWork?.progressed(task, doneRatio(worked))
    const isDone = doneRatio(worked) >= 1
    // It ended when its last lane did, not when the clock next struck.
    const pastSeconds = Math.max(0, Math.min(own, worked.workedSeconds - neededSeconds(task)))
    const endedAt = array.clock.now() - pastSeconds * 1000
    const ended: TaskEntity = isDone ? { ...worked, state: 'Completed', endedAt } : worked
    array.store.commit([array.entry('tasks', ended), ...(isDone ? resultOf(array, task) : [])])
  }
}

const ofCopies: ReadonlySet<TaskEntity['work']> = new Set([
  'flush-snapshot',
  'flush-group',
  'copy-clone',
  'restore-volume',
])

const failed = (array: SimulatedArray, task: TaskEntity, message: string): Entry[] => [
  array.entry('tasks', { ...task, state: 'Exception', endedAt: array.clock.now(), message }),
  ...notMoved(array, task),
  ...notMirrored(array, task),
]

function haltedWhy(array: SimulatedArray, task: TaskEntity): string | undefined {
  if (task.work === 'move-volume') return moveHalted(array, task)
  return task.work === 'mirror-volume' ? mirrorHalted(array, task) : array.extraWork?.halted(task)
}

function resultOf(array: SimulatedArray, task: TaskEntity): Entry[] {
  if (task.work === 'initialise-pool')
    return [array.entry('pools', { ...array.one('pools', task.subjectId), isReady: true })]
  if (task.work === 'zero-volume')
    return [array.entry('volumes', { ...array.one('volumes', task.subjectId), isReady: true })]
  if (ofCopies.has(task.work)) return endedCopy(array, task)
  if (task.work === 'move-volume') return arrived(array, task)
  if (task.work === 'mirror-volume') return mirrored(array, task)
  return [...(array.extraWork?.ended(task) ?? [])]
}

/** A drive fails: a spare of its pool, if there is one, takes its place and is filled at half a drive's rate. */
export function failDrive(array: SimulatedArray, enclosureId: string, bay: number): void {
  const drive = array.all('drives').find(each => each.enclosureId === enclosureId && each.bay === bay)
  if (drive === undefined || drive.isFailed) return
  const spare = array
    .all('drives')
    .find(each => each.poolId === drive.poolId && each.role === 'spare' && !each.isFailed)
  const failed = array.entry('drives', { ...drive, isFailed: true })
  const pool = drive.poolId === null ? undefined : array.one('pools', drive.poolId)
  if (pool === undefined || drive.role !== 'data' || spare === undefined) return array.store.commit([failed])
  const groups = pool.groups.map(group => group.map(id => (id === drive.id ? spare.id : id)))
  const lanes = [{ bytes: Number(spare.capacityBytes), bytesPerSecond: spare.bytesPerSecond * 0.5 }]
  array.store.commit([
    array.entry('drives', { ...drive, isFailed: true, poolId: null, groupIndex: null, role: 'unassigned' }),
    array.entry('drives', { ...spare, role: 'data', groupIndex: drive.groupIndex }),
    array.entry('pools', { ...pool, groups, spares: pool.spares.filter(id => id !== spare.id) }),
    array.entry('tasks', array.task(`Rebuild onto ${spare.serial}`, 'rebuild-drive', pool.id, {}, lanes)),
  ])
}

/** Stops a move or the filling of a mirror that somebody no longer wants. Other work cannot be stopped. */
export function cancelTask(array: SimulatedArray, task: TaskEntity): void {
  if (task.state !== 'Running')
    throw conflict(`${task.name} was not stopped.`, 'It has ended.', 'Nothing is to be done.')
  if (task.work !== 'move-volume' && task.work !== 'mirror-volume')
    throw conflict(`${task.name} was not stopped.`, 'Work of this kind goes on to its end.', 'Wait for it.')
  const ended: TaskEntity = { ...task, state: 'Cancelled', endedAt: array.clock.now(), message: 'It was stopped.' }
  array.store.commit([array.entry('tasks', ended), ...notMoved(array, task), ...notMirrored(array, task)])
}
