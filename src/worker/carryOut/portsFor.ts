import type { ChangeRecord } from '@/core/views'
import { kindNamed, type Facts } from '@/changes'
import type { ChangePorts } from '@/ports'
import { estateNow } from '@/drafting'
import { loadEstate } from '@/records'
import { changeById, mark } from '@/records/changes'
import {
  dropCatalogue,
  enrolHost,
  enrolSystem,
  hold,
  idAt,
  keepCatalogue,
  keepPathProbe,
  release,
  signException,
  withdrawException,
} from '@/records/inventory'
import { collectSystem } from '../collectSystem'
import { HoldLost, StopWanted } from '../errors'
import type { World } from '../World'

const leastMilliseconds = 900
const leastRatio = 0.01

/** What the steps and the proof of one change may reach, with progress going to the change's journal. */
export function portsFor(
  world: World,
  change: ChangeRecord,
  step: { readonly index: number; readonly facts: () => Facts },
  lost: AbortSignal,
): ChangePorts {
  const scope = { database: world.database }
  const kind = kindNamed(change.kind)
  const signal = AbortSignal.any([world.stop, lost])
  let toldAt = 0
  let toldRatio = -1
  const standing = async () => {
    if (lost.aborted) throw new HoldLost()
    if ((await changeById(scope, change.id))?.isStopWanted === true) throw new StopWanted()
  }
  return {
    system: id => world.system(id),
    probedSystem: id => world.probedSystem(id),
    host: address => world.host(address),
    node: address => world.node(address),
    madeBy: change.madeBy,
    records: {
      enrolSystem: (probeId, name, siteId, key) => enrolSystem(scope, world.key, probeId, name, siteId, key),
      forgetSystem: async id => void (await world.database.query('delete from systems where id = $1', { bind: [id] })),
      enrolHost: (host, key) => enrolHost(scope, host, key),
      collect: id => collectSystem(world, id),
      hold: (id, until) => hold(scope, id, until),
      release: id => release(scope, id),
      keepPathProbe: probe => keepPathProbe(scope, probe),
      signException: (exception, key) => signException(scope, exception, key),
      withdrawException: key => withdrawException(scope, key),
      keepCatalogue: (catalogue, importedBy, key) => keepCatalogue(scope, catalogue, importedBy, key),
      dropCatalogue: key => dropCatalogue(scope, key),
      idAt: (systemId, locator) => idAt(scope, systemId, locator),
    },
    estate: () => loadEstate(scope, kind.needs(change.intent, step.facts()), change.kind, change.id),
    now: () => estateNow(scope),
    progress: async (doneRatio, words) => {
      if (Date.now() - toldAt < leastMilliseconds && doneRatio < 1) return
      toldAt = Date.now()
      await standing()
      if (doneRatio < 1 && Math.abs(doneRatio - toldRatio) < leastRatio) return
      toldRatio = doneRatio
      await mark(scope, change.id, {
        stepIndex: step.index,
        event: 'progress',
        estateAt: await estateNow(scope),
        doneRatio,
        words,
      })
    },
    signal,
  }
}
