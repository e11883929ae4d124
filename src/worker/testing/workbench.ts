import type { ChangeRecord } from '@/core/views'
import { randomBytes } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { identify, protocolNamed } from '@/connectors'
import type { Estate, EstateNeeds } from '@/core/estate'
import { carryOut, makeDraft } from '@/drafting'
import { loadEstate, openDatabase, setSetting } from '@/records'
import { changeById, journalOf } from '@/records/changes'
import { rows } from '@/records/database'
import { agreedBefore, estateNow, keepProbe } from '@/records/inventory'
import { freshDatabase } from '@/records/testing'
import { anyPorts, startFleet } from '@/standins'
import { startWorker } from '../startWorker'
import { copied, copyFleet, type Left, type Prepared } from './prepared'

const patienceMilliseconds = 120_000
/** What a worker does every ten seconds tests await: here it does so every three, where nothing else is said. */
const usualPace = 3
/** The clock is looked at so often, at the wall's pace. */
const clockMilliseconds = 2000
/** Two thirds of what a worker does while nothing happens is measuring: once at the beginning is enough for what does not look at it. */
const hardly = 0.02
/** And what the fleet accounts of its loads, nobody looks at there. */
const seldom = 600_000
export const tester = { name: 'tester', address: null }

interface Wanted {
  /** Whether it also measures all the time. */
  readonly isMetered?: boolean
  /** How many times as often the worker does what it does again and again. */
  readonly pace?: number
  /** What it is a copy of; else the estate is empty. */
  readonly from?: Prepared
}

/** A fleet, an estate and a worker that serves it: what whole-change tests stand on. */
export async function workbench(rate: number, { isMetered = false, pace = usualPace, from }: Wanted = {}) {
  const key = from?.key ?? randomBytes(32)
  const folder = mkdtempSync(join(tmpdir(), 'fleet-'))
  if (from !== undefined) copyFleet(from, folder)
  const fleet = await startFleet(folder, anyPorts, rate, isMetered ? undefined : seldom)
  fleet.clock.setRate(rate)
  const records = from === undefined ? await freshDatabase() : await copied(from, fleet)
  const { database } = records
  const log = (line: string) =>
    process.env['WORKER_LOG'] === undefined ? undefined : process.stderr.write(`${line}\n`)
  const started = () => startWorker(records.url, key, log, { pace, meterPace: isMetered ? pace : hardly })
  let worker = await started()
  await setSetting({ database }, 'addresses', '127.0.0.0/8')
  await setSetting({ database }, 'estate-clock', 'systems')
  await setSetting({ database }, 'name-server', `127.0.0.1:${fleet.ports.names}`)

  return {
    ...{ fleet, database, key },
    ...changesOn(database),
    ...systemsOf(fleet, database, key),
    estate: (needs: EstateNeeds = []): Promise<Estate> => loadEstate({ database }, needs, ''),
    until,
    /**
     * Sets the fleet's clock forward. Twice within two looks at it would be taken for a faster rate: what was set before is waited for,
     * until it has been seen and looked at once more.
     */
    stepped: async (seconds: number) => {
      const secondsApart = async () => (fleet.clock.now() - (await estateNow({ database })).getTime()) / 1000
      await until(async () => Math.abs(await secondsApart()) < 5 * Math.max(1, fleet.clock.rate), 'the clock is seen')
      await pause((2 * clockMilliseconds) / pace)
      fleet.clock.step(seconds)
    },
    /** Lets the fleet's clock run at another rate, and waits until the estate counts by it: until then a change would seem to take hours. */
    paced: async (to: number) => {
      fleet.clock.setRate(to)
      const counted = async () => (await agreedBefore({ database }))?.rate ?? 0
      await until(async () => Math.abs((await counted()) / to - 1) < 0.1, 'the clock is counted by')
    },
    /** A second worker on the same estate. */
    anotherWorker: started,
    refuseDatabase,
    restartWorker: async () => {
      await worker.stop()
      worker = await started()
    },
    /** Ends all that serves it. @returns what is left of it @param ids of what was made */
    left: async (ids: Prepared['ids']): Promise<Left> => {
      await worker.stop()
      fleet.clock.setRate(0)
      await fleet.stop()
      await records.close()
      return { url: records.url, fleetFolder: folder, key, ids }
    },
    close: async () => {
      await worker.stop()
      await fleet.stop()
      await records.close()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

/** Waits until something holds, as the collector brings it in. */
async function until(holds: () => Promise<boolean>, what: string): Promise<void> {
  for (let waited = 0; waited < patienceMilliseconds; waited += 100) {
    if (await holds()) return
    await pause(100)
  }
  throw new Error(`It did not come to be: ${what}`)
}

/** Drafts changes and carries them out, as an administrator would. */
function changesOn(database: Database) {
  const ended = async (id: string): Promise<ChangeRecord> => {
    for (let waited = 0; waited < patienceMilliseconds; waited += 60) {
      // Its plan comes with all of it: read once it has ended.
      const [found] = await rows<{ readonly state: string }>({ database }, 'select state from changes where id = $1', [
        id,
      ])
      const change = found?.state === 'running' ? undefined : await changeById({ database }, id)
      if (change !== undefined) return change
      await pause(60)
    }
    throw new Error(`The change did not end: ${JSON.stringify(await journalOf({ database }, id))}`)
  }
  const drafted = (kind: string, intent: object) => makeDraft({ database }, kind, intent, tester)
  const begun = async (kind: string, intent: object) => {
    const draft = await drafted(kind, intent)
    await carryOut(database, draft.id, draft.planDigest, tester)
    return draft.id
  }
  const carriedOut = async (kind: string, intent: object): Promise<ChangeRecord> => ended(await begun(kind, intent))
  return { ended, drafted, begun, carriedOut }
}

/** Looks at systems of the fleet and takes them into the estate. */
function systemsOf(fleet: Fleet, database: Database, key: Buffer) {
  const probed = async (name: string) => {
    const address = `http://127.0.0.1:${fleet.ports.arrays[name]}`
    const access = { userName: 'admin', password: `${name}-demo` }
    const { signal } = new AbortController()
    const endpoint = { address, acceptedFingerprint: null }
    const { protocol, identity } = await identify(endpoint, signal)
    const found = await protocolNamed(protocol).lookAt(endpoint, identity, access, signal)
    return keepProbe({ database }, key, found, { protocol, ...endpoint, ...access, uuid: found.uuid }, 'tester')
  }
  /** @returns its id */
  const registered = async (name: string): Promise<string> => {
    const intent = { probeId: await probed(name), name, siteId: '', isPlainHttpAccepted: true, acceptedFingerprint: '' }
    await changesOn(database).carriedOut('register-system', intent)
    const { systems } = await loadEstate({ database }, [], '')
    return systems.find(system => system.name === name)?.id ?? ''
  }
  return { probed, registered }
}

/** Cuts every connection to the database and lets none in for a while. */
async function refuseDatabase(name: string, milliseconds: number): Promise<void> {
  const owner = openDatabase((process.env['TEST_POSTGRES_URL'] ?? '').replace(/\/[^/]*$/, '/postgres'), 1)
  await owner.query(`alter database "${name}" allow_connections false`)
  await owner.query(`select pg_terminate_backend(pid) from pg_stat_activity where datname = '${name}'`)
  await pause(milliseconds)
  await owner.query(`alter database "${name}" allow_connections true`)
  await owner.close()
}

type Database = Awaited<ReturnType<typeof freshDatabase>>['database']
type Fleet = Awaited<ReturnType<typeof startFleet>>
