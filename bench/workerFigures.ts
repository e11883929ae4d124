import { spawn, type ChildProcess } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import type { Sequelize } from 'sequelize'
import { migrate, openDatabase, setSetting } from '@/records'
import { enrolSystem, keepProbe } from '@/records/inventory'
import { packIncoming } from '@/records/metrics'
import { buildWhenStale, programs } from '../commands/build'
import { projectFolder } from '../commands/paths'
import { freePort } from '../commands/ports'
import { ensureDatabase } from '../commands/postgres'
import { production, untilAnswers } from '../commands/processes'
import type { Figure } from './measure'
import { cpuSeconds, residentMegabytes } from './processFigures'
import { readerFigures } from './readers'
import { signedIn, startWeb } from './webProcess'

const volumes = 100_000
/** Several whole readings: of one or two it would depend on when it begins how many there are. */
const watchedSeconds = 360
const patienceSeconds = 180

/** What it costs to look after a system of a hundred thousand volumes in which nothing changes. */
export async function workerFigures(url: string): Promise<Figure[]> {
  await buildWhenStale(line => process.stdout.write(`${line}\n`))
  const own = `${url}_worker`
  await ensureDatabase(own)
  const database = openDatabase(own)
  await migrate(database, own)
  const port = await freePort()
  const service = spawn(
    process.execPath,
    ['--import', 'tsx', join(import.meta.dirname, 'largeService.ts'), `${volumes}`, `${port}`],
    { cwd: projectFolder, stdio: ['ignore', 'ignore', 'inherit'] },
  )
  const key = randomBytes(32)
  const startWorker = () =>
    spawn(process.execPath, [programs.worker], {
      cwd: projectFolder,
      stdio: 'ignore',
      env: { ...process.env, ...production, DATABASE_URL: own, WENDREL_KEY: key.toString('base64') },
    })
  const worker = startWorker()
  const others: ChildProcess[] = []
  try {
    if (!(await untilAnswers(`http://127.0.0.1:${port}/redfish/v1`, 60_000)))
      throw new Error('The large system does not answer.')
    await register(database, key, `http://127.0.0.1:${port}`)
    for (let waited = 0; (await known(database)) < volumes; waited += 1) {
      if (waited > patienceSeconds) throw new Error('The large system was not read.')
      await pause(1000)
    }
    for (let waited = 0; (await measured(database)) < volumes; waited += 1) {
      if (waited > patienceSeconds * 3) throw new Error('The large system was not measured.')
      await pause(1000)
    }
    // The first reading and what it measures have been stored and packed, and what follows from it has been made; what comes then finds
    // nothing new. Packing is not left to the worker, nor tidying up to the database: by when the worker began, both would fall into the
    // minutes that are watched, or not.
    await packIncoming(database)
    await untilQuiet(database)
    await database.query('vacuum analyze')
    await untilQuiet(database)
    const [walBefore, cpuBefore] = [await walBytes(database), cpuSeconds(worker.pid)]
    let mostMegabytes = 0
    for (let second = 0; second < watchedSeconds; second += 1) {
      mostMegabytes = Math.max(mostMegabytes, residentMegabytes(worker.pid))
      await pause(1000)
    }
    const minutes = watchedSeconds / 60
    const wal = ((await walBytes(database)) - walBefore) / minutes
    const cpu = (cpuSeconds(worker.pid) - cpuBefore) / minutes
    const about = `A worker that looks after ${volumes.toLocaleString('en')} volumes in which nothing changes`
    return [
      { what: `${about}: memory`, measured: `${mostMegabytes} MB`, wanted: 'under 250 MB', holds: mostMegabytes < 250 },
      {
        what: `${about}: processor`,
        measured: `${cpu.toFixed(1)} s a minute`,
        wanted: 'under 3 s a minute',
        holds: cpu < 3,
      },
      {
        what: `${about}: what the database writes`,
        measured: `${(wal / 1000).toFixed(1)} kB of log a minute`,
        wanted: 'under 100 kB a minute',
        holds: wal < 100_000,
      },
      ...(await readersBeside(own, database, key, process => others.push(process), startWorker)),
    ]
  } finally {
    for (const each of [worker, ...others]) each.kill('SIGKILL')
    service.kill('SIGKILL')
    await database.close()
  }
}

/** Two hundred readers of a system that two workers look after meanwhile. */
async function readersBeside(
  url: string,
  database: Sequelize,
  key: Buffer,
  keep: (process: ChildProcess) => void,
  startWorker: () => ChildProcess,
): Promise<Figure[]> {
  const port = await freePort()
  keep(startWorker())
  keep(startWeb(url, port, key))
  const address = `http://127.0.0.1:${port}`
  if (!(await untilAnswers(`${address}/api/v1/openapi.json`, 60_000))) throw new Error('The pages do not answer.')
  const headers = { cookie: await signedIn(address, database) }
  const [rows] = await database.query('select id from systems')
  const system = `/build/systems/${(rows[0] as { id: string }).id}`
  const paths = ['/', '/build', system, '/build/pools', '/provision', '/changes']
  for (const path of paths) await (await fetch(`${address}${path}`, { headers })).arrayBuffer()
  return readerFigures(address, headers, paths, ', beside two workers')
}

async function register(database: Sequelize, key: Buffer, address: string): Promise<void> {
  const scope = { database }
  await setSetting(scope, 'addresses', '127.0.0.0/8')
  const uuid = '5f1c0f1e-0000-4000-8000-0000000000aa'
  const access = { protocol: 'redfish', address, acceptedFingerprint: null, userName: 'a', password: 'b', uuid }
  const found = { uuid, name: 'large', maker: 'm', model: 'm', serial: 's', firmware: null } as never
  await enrolSystem(scope, key, await keepProbe(scope, key, found, access, 'bench'), 'large', null, 'bench')
}

const one = async (database: Sequelize, sql: string): Promise<number> => {
  const [rows] = await database.query(sql)
  return Number((rows[0] as { n: string | number } | undefined)?.n ?? 0)
}
const known = (database: Sequelize) => one(database, 'select count(*) as n from volumes')
const measured = (database: Sequelize) =>
  one(database, `select count(*) as n from metric_series where kind = 'volumes' and last_at is not null`)
const walBytes = (database: Sequelize) => one(database, `select pg_current_wal_insert_lsn() - '0/0'::pg_lsn as n`)

/** Waits until the database has written next to nothing for half a minute; what still writes after that is measured as it is. */
async function untilQuiet(database: Sequelize): Promise<void> {
  for (let waited = 0, quiet = 0; waited < patienceSeconds && quiet < 30; waited += 10) {
    const before = await walBytes(database)
    await pause(10_000)
    quiet = (await walBytes(database)) - before < 20_000 ? quiet + 10 : 0
  }
}
