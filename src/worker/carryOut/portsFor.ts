import type { ChangeRecord } from '@/core/views'
import { kindNamed, type Facts } from '@/changes'
import type { ChangePorts, SystemTask } from '@/ports'
import { loadEstate, type Scope } from '@/records'
import { changeById, mark } from '@/records/changes'
import {
  dropCatalogue,
  dropClass,
  dropHosts,
  enrolHost,
  enrolHosts,
  enrolSystem,
  estateNow,
  forgetMissing,
  forgetSystem,
  gone,
  hold,
  movedTo,
  hostSignIn,
  idAt,
  keepCatalogue,
  keepClass,
  keepPathProbe,
  keepPool,
  missingOf,
  noteSnapshots,
  release,
  placeHosts,
  setApplication,
  setClass,
  setHostSignIn,
  setImage,
  noteShare,
  setSchedule,
  signException,
  withdrawException,
} from '@/records/inventory'
import { beginScan, dropScan, endScan, keepScanPart, scanParts, scansOf } from '@/records/files'
import { dropOwn, keepOwn } from '@/records/objects'
import { dropSecret, openSecret } from '@/records/secrets'
import { readDirectory } from '../collect/readDirectory'
import { HoldLost, StopWanted } from '../errors'
import type { World } from '../World'
import type { Patience } from './patience'
import type { Readings } from './Readings'

const leastMilliseconds = 900
const leastRatio = 0.01

/** What a step stands in, as the engine knows it. */
export interface Standing {
  readonly index: number
  readonly facts: () => Facts
  readonly learn: (facts: Facts) => void
  readonly patience: Patience
  readonly readings: Readings
  /** When the wait began from which the step has come back; undefined where it has not waited. */
  readonly waitedSince: Date | undefined
  readonly lost: AbortSignal
  /** Whether a stop takes effect here: not while what was made is taken back. */
  readonly canStop: boolean
}

/** What the steps and the proof of one change may reach, with progress going to the change's journal. */
export function portsFor(world: World, change: ChangeRecord, step: Standing): ChangePorts {
  const scope = { database: world.database }
  const kind = kindNamed(change.kind)
  const { patience, readings } = step
  const acted = () => readings.acted()
  const signal = AbortSignal.any([world.stop, step.lost])
  const system = async (id: string) => patience.counted(await world.system(id), id)
  return {
    system,
    of: async (id, name) => patience.counted(await (await system(id)).of(name), `${id}.${name}`),
    probedSystem: async id => patience.counted(await world.probedSystem(id), id, acted),
    host: async (address, secretId) => patience.counted(await world.host(address, secretId), address, acted),
    joiningSecret: id => openSecret(scope, world.key, id, 'joining'),
    chapSecret: id => openSecret(scope, world.key, id, 'chap'),
    node: async address => patience.counted(await world.node(address), address, acted),
    tell: async (routeId, message, key) => (await world.teller(routeId)).tell(message, key),
    madeBy: change.madeBy,
    records: {
      ...recordsOf(world, readings),
      readDirectory: (id, told) =>
        patience.counted({ read: () => readDirectory(world, id, told) }, `directory ${id}`).read(),
    },
    estate: () => loadEstate(scope, kind.needs(change.intent, step.facts()), change.kind, change.id),
    now: () => estateNow(scope),
    ...reportsOf(world, change, step),
    signal,
  }
}

/** What steps keep beside the systems, each one act on the records. */
const recordsOf = (world: World, readings: Readings): Omit<ChangePorts['records'], 'readDirectory'> => {
  const scope = { database: world.database }
  return {
    enrolSystem: (probeId, name, siteId, key) => enrolSystem(scope, world.key, probeId, name, siteId, key),
    forgetSystem: id => forgetSystem(scope, id),
    forgetMissing: id => forgetMissing(scope, id),
    missingCount: async id => (await missingOf(scope, id)).reduce((sum, each) => sum + each.count, 0),
    gone: (systemId, locators) => gone(scope, systemId, locators),
    enrolHost: (host, key) => enrolHost(scope, host, key),
    enrolHosts: (hosts, key) => enrolHosts(scope, hosts, key),
    dropHosts: which => dropHosts(scope, which),
    setHostSignIn: (id, kept) => setHostSignIn(scope, id, kept),
    hostSignIn: id => hostSignIn(scope, id),
    collect: id => readings.read(id),
    hold: (id, until) => hold(scope, id, until),
    movedTo: (volumeId, systemId, locator) => movedTo(scope, volumeId, systemId, locator),
    release: id => release(scope, id),
    noteSnapshots: (ids, noted) => noteSnapshots(scope, ids, noted),
    keepClass: (kept, id, key) => keepClass(scope, kept, id, key),
    dropClass: id => dropClass(scope, id),
    setClass: (ids, classId) => setClass(scope, ids, classId),
    placeHosts: (ids, siteId) => placeHosts(scope, ids, siteId),
    setApplication: (ids, application) => setApplication(scope, ids, application),
    noteShare: (id, notes) => noteShare(scope, id, notes),
    setSchedule: (ids, schedule) => setSchedule(scope, ids, schedule),
    setImage: (id, isImage) => setImage(scope, id, isImage),
    keepPool: (id, keptFor) => keepPool(scope, id, keptFor),
    keepOwn: (name, kept, id, key, secretId) => keepOwn(scope, name, kept, id, key, secretId),
    dropSecret: id => dropSecret(scope, id),
    dropOwn: (name, id) => dropOwn(scope, name, id),
    fileScans: fileScansOf(scope),
    keepPathProbe: probe => keepPathProbe(scope, probe),
    signException: (exception, key) => signException(scope, exception, key),
    withdrawException: key => withdrawException(scope, key),
    keepCatalogue: (catalogue, importedBy, key) => keepCatalogue(scope, catalogue, importedBy, key),
    dropCatalogue: key => dropCatalogue(scope, key),
    idAt: (systemId, locator) => idAt(scope, systemId, locator),
  }
}

const fileScansOf = (scope: Scope): ChangePorts['records']['fileScans'] => ({
  begin: (walk, key) => beginScan(scope, walk, key),
  keepPart: (id, part, segment, lastPath) => keepScanPart(scope, id, part, segment, lastPath),
  parts: id => scanParts(scope, id),
  end: (id, found) => endScan(scope, id, found),
  drop: key => dropScan(scope, key),
  latest: async shareId => (await scansOf(scope, shareId, 1))[0],
})

/** What is told of a step while it is carried out, in the change's journal. */
function reportsOf(
  world: World,
  change: ChangeRecord,
  step: Standing,
): Pick<ChangePorts, 'progress' | 'keep' | 'waited'> {
  const scope = { database: world.database }
  let toldAt = 0
  let toldRatio = -1
  const standing = async () => {
    if (step.lost.aborted) throw new HoldLost()
    if (step.canStop && (await changeById(scope, change.id))?.isStopWanted === true) throw new StopWanted()
  }
  const noted = async (entry: Omit<Parameters<typeof mark>[2], 'stepIndex' | 'estateAt'>) => {
    if (step.lost.aborted) throw new HoldLost()
    await mark(scope, change.id, { stepIndex: step.index, estateAt: await estateNow(scope), ...entry })
  }
  return {
    async progress(doneRatio, words) {
      if (Date.now() - toldAt < leastMilliseconds && doneRatio < 1) return
      toldAt = Date.now()
      await standing()
      if (doneRatio < 1 && Math.abs(doneRatio - toldRatio) < leastRatio) return
      toldRatio = doneRatio
      await noted({ event: 'progress', doneRatio, words })
    },
    async keep(facts) {
      step.learn(facts)
      await noted({ event: 'progress', words: 'Noted before it is begun.', facts })
    },
    async waited(task, words) {
      step.readings.acted()
      await noted({
        event: 'waited',
        words,
        doneRatio: 1,
        facts: { waitedFor: task.locator },
        waited: waitOf(task, step.waitedSince),
      })
    },
  }
}

/** How long a task was waited for by the wall, and how long it took by its system's own clock; by the wall where it does not say. */
function waitOf({ startedAt, endedAt }: SystemTask, since: Date | undefined): { wallSeconds: number; seconds: number } {
  const wallSeconds = since === undefined ? 0 : Math.max(0, (Date.now() - since.getTime()) / 1000)
  const seconds =
    startedAt === null || endedAt === null
      ? wallSeconds
      : Math.max(0, (Date.parse(endedAt) - Date.parse(startedAt)) / 1000)
  return { wallSeconds, seconds }
}
