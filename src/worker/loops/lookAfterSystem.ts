import { setMaxListeners } from 'node:events'
import { setTimeout as pause } from 'node:timers/promises'
import { refusalOf } from '@/core/errors'
import type { Ears } from '@/ports'
import { estateNow } from '@/records/inventory'
import { noteWaitTold, wake, waitsAt, mark, type Wait } from '@/records/changes'
import { collectParts, collectSystem } from '../collect/collectSystem'
import type { World } from '../World'
import { Bell } from './Bell'
import { every } from './every'
import { giveBack } from './giveBack'
import { HostWays } from './HostWays'
import { Listening } from './Listening'
import { Loads } from './Loads'
import { Metering } from './Metering'
import { ReadingPace } from './ReadingPace'
import { Schedules } from './Schedules'

/** How it is called where a system does not answer: what it told by itself before is at an end, whether it has said so or not. */
const isSilent = new Set(['connection.not-reached', 'connection.answer-late'])
/** Whose reading takes more of a processor is large. */
const largeMicroseconds = 1_000_000
const pollMilliseconds = 500
const scheduleMilliseconds = 5000
const meterMilliseconds = 5000
const waysMilliseconds = 15_000
const tellMilliseconds = 900

/**
 * Looks after one system for as long as its lease holds: reads it at intervals, listens to what it tells, and asks after the tasks that
 * changes wait for. One slow system holds up no other.
 */
export async function lookAfterSystem(
  world: World,
  systemId: string,
  lease: AbortSignal,
  log: (line: string) => void,
): Promise<void> {
  const ending = new AbortController()
  const stop = AbortSignal.any([world.stop, lease, ending.signal])
  setMaxListeners(0, stop)
  const told = (what: string) => (cause: unknown) =>
    log(`${what}: ${cause instanceof Error ? cause.message : String(cause)}`)
  const polling = every(
    pollMilliseconds / world.pace,
    stop,
    () => askAfterTasks(world, systemId),
    told('asking after tasks'),
  )
  const schedules = new Schedules(world, systemId)
  const keeping = every(scheduleMilliseconds / world.pace, stop, () => schedules.keep(), told('keeping schedules'))
  const metering = new Metering(world, systemId)
  const measuring = every(meterMilliseconds / world.meterPace, stop, () => metering.keep(), told('measuring'))
  const loads = new Loads(world, systemId)
  const ways = new HostWays(world, systemId)
  const asking = every(waysMilliseconds / world.pace, stop, () => ways.keep(), told('asking hosts'))
  const counting = every(meterMilliseconds / world.meterPace, stop, () => loads.keep(), told('counting'))
  try {
    await collecting(world, systemId, stop, { counted: each => loads.hear(each) }, told('collecting'))
  } finally {
    ending.abort()
    await Promise.all([polling, keeping, measuring, counting, asking])
  }
}

async function collecting(
  world: World,
  systemId: string,
  stop: AbortSignal,
  ears: Pick<Ears, 'counted'>,
  told: (cause: unknown) => void,
): Promise<void> {
  const bell = new Bell(world.pace)
  const pace = new ReadingPace(world.pace)
  const watch = async (until: AbortSignal) =>
    (await world.system(systemId)).watch({ ...ears, changed: bell.rings }, until)
  const listening = new Listening(watch, () => bell.rings([]), stop)
  let wanted: readonly string[] | 'everything' = 'everything'
  while (!stop.aborted) {
    let isWhole = false
    try {
      const isPart = wanted !== 'everything' && !pace.isDue(Date.now()) && (await collectParts(world, systemId, wanted))
      if (!isPart) {
        await rest(pace.untilRung(Date.now()), stop)
        isWhole = true
        await wholeReading(world, systemId, pace)
      }
      listening.begin()
    } catch (cause) {
      if (stop.aborted || (cause as { code?: unknown }).code === 'worker.system-gone') return
      told(cause)
      pace.failed(isWhole)
      if (isWhole && isSilent.has(refusalOf(cause).code)) listening.leave()
    }
    wanted = await bell.wait(pace.untilDue(Date.now()), stop)
  }
}

async function wholeReading(world: World, systemId: string, pace: ReadingPace): Promise<void> {
  pace.begins(Date.now())
  const before = process.cpuUsage()
  // One that finds nothing new writes nothing, however often it is made.
  await collectSystem(world, systemId, false)
  const { user, system } = process.cpuUsage(before)
  if (user + system > largeMicroseconds) giveBack()
  pace.ended(Date.now(), (user + system) / 1000)
}

const rest = (milliseconds: number, stop: AbortSignal): Promise<unknown> =>
  milliseconds <= 0 ? Promise.resolve() : pause(milliseconds, undefined, { signal: stop }).catch(() => undefined)

async function askAfterTasks(world: World, systemId: string): Promise<void> {
  if (!(await world.awaited()).has(systemId)) return
  const waits = await waitsAt({ database: world.database }, systemId)
  if (waits.length === 0) return
  const system = await world.system(systemId)
  await Promise.all(
    waits.map(async wait => {
      // Whatever cannot be asked is looked at by the step itself, which knows how long to be patient.
      const task = await (await system.of('tasks')).at(wait.task ?? '').catch(() => undefined)
      if (task?.state === 'running') await tell(world, wait, task.doneRatio)
      else await wake(world.database, wait.changeId)
    }),
  )
}

async function tell(world: World, wait: Wait, doneRatio: number): Promise<void> {
  const isLate = wait.toldAt === null || Date.now() - wait.toldAt.getTime() > tellMilliseconds
  if (!isLate || Math.abs(doneRatio - wait.doneRatio) < 0.01) return
  const scope = { database: world.database }
  const { changeId, stepIndex, words } = wait
  await mark(scope, changeId, { stepIndex, event: 'progress', estateAt: await estateNow(scope), doneRatio, words })
  await noteWaitTold(scope, changeId, doneRatio)
}
