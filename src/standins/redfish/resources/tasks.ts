import { cancelTask, doneRatio, Refused, type SimulatedArray, type TaskEntity } from '../../array'
import { resource, root, type Body } from '../body'
import { placesOf, single, type Place } from '../Place'

const type = 'Task.v1_7_4.Task'
const path = (id: string) => `TaskService/Tasks/${id}`

export const taskBody = (each: TaskEntity): Body => resource(path(each.id), type, each.id, each.name, taskState(each))

const taskState = (each: TaskEntity): Body => ({
  TaskState: each.state,
  TaskStatus: each.state === 'Exception' ? 'Critical' : each.state === 'Cancelled' ? 'Warning' : 'OK',
  TaskMonitor: `${root}/TaskService/TaskMonitors/${each.id}`,
  StartTime: new Date(each.startedAt).toISOString(),
  ...(each.endedAt === null ? {} : { EndTime: new Date(each.endedAt).toISOString() }),
  PercentComplete: Math.floor(doneRatio(each) * 100),
  Payload: { HttpOperation: each.method, TargetUri: each.targetUri, JsonBody: each.jsonBody },
  Messages:
    each.message === ''
      ? []
      : [
          {
            '@odata.type': '#Message.v1_2_1.Message',
            MessageId: 'StorageDevice.1.2.OperationFailure',
            Message: each.message,
            MessageSeverity: 'Critical',
            Severity: 'Critical',
          },
        ],
  Links: { CreatedResources: [{ '@odata.id': each.resultUri }] },
  ...(each.work === 'rebuild-pieces' || each.work === 'move-pieces'
    ? { Oem: { Mirefield: { Work: each.work, Bytes: (JSON.parse(each.jsonBody) as { bytes?: number }).bytes ?? 0 } } }
    : {}),
})

/** Long work, and the monitors by which a client waits for its end. */
export function taskPlaces(array: SimulatedArray): Place[] {
  return [
    single('TaskService', 'TaskService.v1_2_1.TaskService', 'Task service', () => ({
      ServiceEnabled: true,
      DateTime: new Date(array.clock.now()).toISOString(),
      CompletedTaskOverWritePolicy: 'Oldest',
      Tasks: { '@odata.id': `${root}/TaskService/Tasks` },
    })),
    ...placesOf<TaskEntity>({
      path: 'TaskService/Tasks/:task',
      type,
      title: 'Tasks',
      members: () => array.all('tasks'),
      find: id => array.maybe('tasks', id),
      idOf: each => each.id,
      nameOf: each => each.name,
      body: taskState,
      remove: each => cancelTask(array, each),
    }),
  ]
}

export interface Monitored {
  readonly status: number
  readonly location: string
  readonly body: Body | undefined
}

/**
 * What a task monitor answers: 202 with the task while it runs, then what the request itself would have answered.
 * Source: DSP0266, asynchronous operations. @throws {Refused} where the work has failed
 */
export function monitored(task: TaskEntity, bodyAt: (path: string) => Body | undefined): Monitored {
  if (task.state === 'Running')
    return { status: 202, location: `${root}/TaskService/TaskMonitors/${task.id}`, body: taskBody(task) }
  if (task.state === 'Exception' || task.state === 'Cancelled')
    throw new Refused(500, 'StorageDevice.1.2.OperationFailure', {
      what: `${task.name} has failed.`,
      why: task.message,
      remedy: 'See the task.',
    })
  const body = bodyAt(task.resultUri)
  const isMade = task.method === 'POST' && body !== undefined
  return { status: isMade ? 201 : body === undefined ? 204 : 200, location: task.resultUri, body }
}
