import { isIP } from 'node:net'
import {
  badValue,
  conflict,
  doneRatio,
  type FileServiceEntity,
  type ShareGrantEntity,
  type SimulatedArray,
  type TaskEntity,
} from '../array'

interface ServiceRequest {
  readonly name: string
  readonly description: string
  readonly nameServers: readonly string[]
  readonly searchSuffixes: readonly string[]
  readonly instances: FileServiceEntity['instances']
}

/** Where an address of a service is answered now; null while it is answered nowhere. */
export interface InstanceState {
  readonly unit: string
  readonly address: string
  readonly prefixLength: number
  readonly standsOn: string | null
}

/** Its software, unpacked and started on each unit (bytes), and how fast (bytes a second). */
const imageBytes = 1.2e9
const imageRate = 1.5e8
/** So long others wait before they answer in the place of a unit that is down (fleet milliseconds). */
const takeOverMilliseconds = 15_000

export function makeService(
  array: SimulatedArray,
  wanted: ServiceRequest,
): { readonly service: FileServiceEntity; readonly task: TaskEntity } {
  const refuse = (why: string, remedy: string) => conflict(`${wanted.name} was not made.`, why, remedy)
  const units = array.fileUnits.all()
  const addresses = wanted.instances.map(({ address }) => address)
  if (array.all('fileServices').some(each => each.name === wanted.name))
    throw refuse('A file service of that name exists.', 'Choose another name.')
  if (addresses.some(address => isIP(address) === 0) || new Set(addresses).size !== addresses.length)
    throw badValue(
      `${wanted.name} was not made.`,
      'Each instance needs an address of its own.',
      'Give other addresses.',
    )
  if (wanted.instances.length === 0 || wanted.instances.some(({ unit }) => !units.includes(unit)))
    throw badValue(
      `${wanted.name} was not made.`,
      `It can stand on ${units.join(', ') || 'nothing yet'}.`,
      'Choose among these.',
    )
  const taken = array
    .all('fileServices')
    .flatMap(each => each.instances)
    .find(({ address }) => addresses.includes(address))
  if (taken !== undefined) throw refuse(`Another service has ${taken.address}.`, 'Give other addresses.')
  const id = array.nextId('fileServices', wanted.name)
  const lanes = wanted.instances.map((_, index) => ({ bytes: imageBytes * (index + 1), bytesPerSecond: imageRate }))
  const task = array.task(`Start ${wanted.name}`, 'start-file-service', id, wanted, lanes)
  const service = { id, ...wanted, taskId: task.id }
  array.store.commit([array.entry('fileServices', service), array.entry('tasks', task)])
  return { service, task }
}

/** Who may use any of its shares over SMB, besides those whom each share lets. */
export function setGrants(array: SimulatedArray, id: string, grants: readonly ShareGrantEntity[]): void {
  array.store.commit([array.entry('fileServices', { ...array.one('fileServices', id), grants })])
}

/**
 * Takes a service into a directory by an account that may do so: it gets an account of its own there, and keeps nothing of the one by
 * which it came. Null takes it out.
 */
export function setDirectory(
  array: SimulatedArray,
  id: string,
  wanted: {
    readonly address: string
    readonly baseDn: string
    readonly userName: string
    readonly password: string
  } | null,
): void {
  const { joinedTo, ...service } = array.one('fileServices', id)
  const reached = array.directory
  const refuse = (why: string, remedy: string) => conflict(`${service.name} joined no directory.`, why, remedy)
  if (wanted === null) {
    if (joinedTo === undefined) return
    const spoken = array.all('fileShares').find(each => each.fileServiceId === id && speaksSmb(each.protocols))
    if (spoken !== undefined)
      throw conflict(
        `${service.name} still belongs to it.`,
        `${spoken.name} is shared over SMB.`,
        'Remove that share first.',
      )
    reached?.tree.leave(service.name)
    return array.store.commit([array.entry('fileServices', service)])
  }
  if (joinedTo !== undefined) throw refuse(`It belongs to ${joinedTo}.`, 'Take it out of that one first.')
  if (reached === undefined || reached.address !== wanted.address.replace(/\/$/, ''))
    throw refuse(`No directory answers at ${wanted.address}.`, 'Give another address.')
  const why = reached.tree.join(wanted.userName, wanted.password, service.name)
  if (why !== undefined) throw refuse(`The directory says: ${why}.`, 'Give an account that may take computers in.')
  array.store.commit([array.entry('fileServices', { ...service, joinedTo: wanted.baseDn })])
}

export const speaksSmb = (protocols: readonly string[]) => protocols.some(each => each.startsWith('SMB'))

export function removeService(array: SimulatedArray, id: string): void {
  const service = array.one('fileServices', id)
  const share = array.all('fileShares').find(each => each.fileServiceId === id)
  if (share !== undefined)
    throw conflict(`${service.name} was not removed.`, `It serves ${share.name}.`, 'Remove its shares first.')
  if (service.joinedTo !== undefined) array.directory?.tree.leave(service.name)
  array.store.commit([array.gone('fileServices', id)])
}

/** Each address with where it is answered: on its own unit, or, a while after that went down, on the next that is up. */
export function instancesOf(array: SimulatedArray, service: FileServiceEntity): InstanceState[] {
  const task = array.maybe('tasks', service.taskId)
  const started =
    task === undefined || task.state !== 'Running'
      ? service.instances.length
      : Math.floor(doneRatio(task) * service.instances.length)
  const up = service.instances.filter((each, index) => index < started && array.fileUnits.downSince(each.unit) === null)
  return service.instances.map((instance, index) => {
    const downSince = array.fileUnits.downSince(instance.unit)
    if (index >= started) return { ...instance, standsOn: null }
    if (downSince === null) return { ...instance, standsOn: instance.unit }
    const isTakenOver = array.clock.now() - downSince >= takeOverMilliseconds
    return { ...instance, standsOn: isTakenOver ? (up[index % Math.max(1, up.length)]?.unit ?? null) : null }
  })
}
