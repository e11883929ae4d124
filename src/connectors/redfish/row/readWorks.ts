import type { Inventory } from '@/ports'
import type { Connection } from '../Connection'
import { isTask } from '../schemas'
import { instant } from '../tasks'
import { isPieceWork } from './schemas'

const tasks = '/redfish/v1/TaskService/Tasks'

/** What a cluster does or did with the pieces of its pools: making them anew, and moving them. */
export async function readWorks(connection: Connection): Promise<Inventory['works']> {
  const all: readonly unknown[] = await connection.members(tasks, isTask)
  return all.flatMap((task): Inventory['works'][number][] => {
    if (!isPieceWork(task)) return []
    const state = task.TaskState === 'Completed' ? 'done' : task.TaskState === 'Running' ? 'running' : 'failed'
    return [
      {
        locator: task['@odata.id'],
        poolLocator: task.Links?.CreatedResources?.[0]?.['@odata.id'] ?? '',
        kind: task.Oem.Mirefield.Work === 'rebuild-pieces' ? 'rebuild' : 'move',
        state,
        startedAt: instant(task.StartTime),
        endedAt: state === 'running' ? null : instant(task.EndTime),
        doneRatio: state === 'done' ? 1 : Math.min(1, (task.PercentComplete ?? 0) / 100),
        bytes: BigInt(task.Oem.Mirefield.Bytes),
      },
    ]
  })
}
