import type { Inventory } from '@/ports'
import type { Connection } from '../Connection'
import { ofMaker } from '../makers'
import { instant } from './requests'
import { isTask } from './schema'

/** What a cluster does or did with the pieces of its pools: making them anew, and moving them. */
export async function readWorks(connection: Connection, tasks: string | undefined): Promise<Inventory['works']> {
  const all = tasks === undefined ? [] : await connection.members(tasks, isTask)
  return all.flatMap((task): Inventory['works'][number][] => {
    const work = ofMaker.work(task)
    if (work === undefined) return []
    const state = task.TaskState === 'Completed' ? 'done' : task.TaskState === 'Running' ? 'running' : 'failed'
    return [
      {
        locator: task['@odata.id'],
        poolLocator: task.Links?.CreatedResources?.[0]?.['@odata.id'] ?? '',
        kind: work.kind,
        state,
        startedAt: instant(task.StartTime),
        endedAt: state === 'running' ? null : instant(task.EndTime),
        doneRatio: state === 'done' ? 1 : Math.min(1, (task.PercentComplete ?? 0) / 100),
        bytes: work.bytes,
      },
    ]
  })
}
