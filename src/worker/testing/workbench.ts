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
import { keepProbe } from '@/records/inventory'
import { freshDatabase } from '@/records/testing'
import { anyPorts, startFleet } from '@/standins'
import { startWorker } from '../startWorker'

const patienceMilliseconds = 60_000
export const tester = { name: 'tester', address: null }

/** A fleet, an empty estate and a worker that serves it: what whole-change tests stand on. */
export async function workbench(rate: number) {
  const key = randomBytes(32)
  const folder = mkdtempSync(join(tmpdir(), 'fleet-'))
  const fleet = await startFleet(folder, anyPorts, rate)
  const records = await freshDatabase()
  const { database } = records
  const log = (line: string) =>
    process.env['WORKER_LOG'] === undefined ? undefined : process.stderr.write(`${line}\n`)
  let worker = await startWorker(records.url, key, log)
  await setSetting({ database }, 'addresses', '127.0.0.0/8')
  await setSetting({ database }, 'estate-clock', 'systems')
  await setSetting({ database }, 'name-server', `127.0.0.1:${fleet.ports.names}`)

  const ended = async (id: string): Promise<ChangeRecord> => {
    for (let waited = 0; waited < patienceMilliseconds; waited += 60) {
      const change = await changeById({ database }, id)
      if (change !== undefined && change.state !== 'running') return change
      await pause(60)
    }
    throw new Error(`The change did not end: ${JSON.stringify(await journalOf({ database }, id))}`)
  }
  const drafted = (kind: string, intent: object) => makeDraft({ database }, kind, intent, tester)
  const probed = async (name: string) => {
    const address = `http://127.0.0.1:${fleet.ports.arrays[name]}`
    const access = { userName: 'admin', password: `${name}-demo` }
    const { signal } = new AbortController()
    const endpoint = { address, acceptedFingerprint: null }
    const { protocol, identity } = await identify(endpoint, signal)
    const found = await protocolNamed(protocol).lookAt(endpoint, identity, access, signal)
    return keepProbe({ database }, key, found, { protocol, ...endpoint, ...access, uuid: found.uuid }, 'tester')
  }
  return {
    fleet,
    database,
    key,
    ended,
    drafted,
    estate: (needs: EstateNeeds = []): Promise<Estate> => loadEstate({ database }, needs, ''),
    begun: async (kind: string, intent: object) => {
      const draft = await drafted(kind, intent)
      await carryOut(database, draft.id, draft.planDigest, tester)
      return draft.id
    },
    carriedOut: async (kind: string, intent: object): Promise<ChangeRecord> => {
      const draft = await drafted(kind, intent)
      await carryOut(database, draft.id, draft.planDigest, tester)
      return ended(draft.id)
    },
    /** Waits until something holds, as the collector brings it in. */
    until: async (holds: () => Promise<boolean>, what: string) => {
      for (let waited = 0; waited < patienceMilliseconds; waited += 100) {
        if (await holds()) return
        await pause(100)
      }
      throw new Error(`It did not come to be: ${what}`)
    },
    /** A second worker on the same estate. */
    anotherWorker: () => startWorker(records.url, key, log),
    /** Cuts every connection to the database and lets none in for a while. */
    refuseDatabase: async (name: string, milliseconds: number) => {
      const owner = openDatabase((process.env['TEST_POSTGRES_URL'] ?? '').replace(/\/[^/]*$/, '/postgres'), 1)
      await owner.query(`alter database "${name}" allow_connections false`)
      await owner.query(`select pg_terminate_backend(pid) from pg_stat_activity where datname = '${name}'`)
      await pause(milliseconds)
      await owner.query(`alter database "${name}" allow_connections true`)
      await owner.close()
    },
    restartWorker: async () => {
      await worker.stop()
      worker = await startWorker(records.url, key, log)
    },
    probed,
    /** Takes a system of the fleet into the estate, as an administrator would. @returns its id */
    registered: async (name: string): Promise<string> => {
      const probeId = await probed(name)
      const intent = { probeId, name, siteId: '', isPlainHttpAccepted: true, acceptedFingerprint: '' }
      const draft = await drafted('register-system', intent)
      await carryOut(database, draft.id, draft.planDigest, tester)
      await ended(draft.id)
      const { systems } = await loadEstate({ database }, [], '')
      return systems.find(system => system.name === name)?.id ?? ''
    },
    close: async () => {
      await worker.stop()
      await fleet.stop()
      await records.close()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}
