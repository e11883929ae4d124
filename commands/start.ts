import { existsSync, readFileSync, statfsSync, writeFileSync } from 'node:fs'
import { randomBytes } from 'node:crypto'
import { join } from 'node:path'
import { migrate, openDatabase } from '@/records'
import { firstCode } from '@/records/access'
import { keyAt } from '@/records/secrets'
import type { FleetPorts } from '@/standins'
import { serviceAccount, type Account } from './account'
import { programs } from './build'
import { CommandRefused } from './CommandRefused'
import { loadDemo } from './loadDemo'
import { dataFolder, projectFolder } from './paths'
import { fleet } from './fleet'
import { fleetPorts, keptPort } from './keptPorts'
import { isFree } from './ports'
import { ensureDatabase, ensureOwnDatabase, startPostgres, type PrivatePostgres } from './postgres'
import { endLeftOver, KeptProcess, production, untilAnswers } from './processes'
import { leaveFolder, note, takeFolder } from './runFile'

const leastFreeBytes = 500_000_000
const patienceMilliseconds = 60_000
const lookMilliseconds = 2000
const say = (line: string) => process.stdout.write(`  ${line}\n`)

/** Starts everything and stays until it is told to end. @param isDemo with the simulated fleet and its estate */
export async function start(isDemo: boolean): Promise<void> {
  const folder = dataFolder()
  const free = statfsSync(folder)
  if (free.bavail * free.bsize < leastFreeBytes)
    throw new CommandRefused(
      `Only ${Math.floor((free.bavail * free.bsize) / 1e6)} MB are free where the data folder ${folder} lies.`,
      'Free some space, or set WENDREL_DATA to a folder elsewhere.',
    )
  takeFolder(folder)
  const started: { stop: () => Promise<void> | void }[] = []
  let ending: Promise<void> | undefined
  const end = () => (ending ??= endAll(folder, started))
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void end().then(() => process.exit(0)))
  try {
    await begin(folder, isDemo, started)
  } catch (cause) {
    await end()
    throw cause
  }
  await new Promise(() => undefined)
}

async function endAll(folder: string, started: readonly { stop: () => Promise<void> | void }[]): Promise<void> {
  say('ending')
  for (const each of [...started].reverse()) await each.stop()
  leaveFolder(folder)
}

interface Started {
  stop: () => Promise<void> | void
}
type Keep = (
  name: 'web' | 'worker' | 'standins',
  environment: Readonly<Record<string, string>>,
  runAs?: Account | undefined,
) => void

async function begin(folder: string, isDemo: boolean, started: Started[]): Promise<void> {
  const logs = join(folder, 'logs')
  await endLeftOver(logs)
  const keep: Keep = (name, environment, account) => {
    const args = ['--enable-source-maps', programs[name]]
    started.push(new KeptProcess({ name, arguments: args, environment, folder: projectFolder, account }, logs, say))
  }
  // It needs no database, and takes its time.
  const ports = isDemo ? await beginFleet(folder, keep) : undefined
  const url = await beginDatabase(folder, started)
  const database = openDatabase(url, 4)
  await migrate(database, url)
  const account = serviceAccount(programs.worker, say)
  const key = keyAt(join(folder, 'key'))
  // The key goes by the environment: its file is for its owner alone, who is not the one under whom they run.
  const withRecords = { ...production, DATABASE_URL: url, WENDREL_KEY: key.toString('base64') }
  const webPort = await keptPort(
    folder,
    'web.port',
    Number(process.env['PORT'] ?? 4180),
    process.env['PORT'] !== undefined,
  )
  const listen = process.env['WENDREL_LISTEN'] ?? '127.0.0.1'
  const address = `http://${listen === '0.0.0.0' || listen === '::' ? '127.0.0.1' : listen}:${webPort}`
  keep('web', { ...withRecords, WENDREL_PORT: `${webPort}`, WENDREL_LISTEN: listen }, account)
  if (ports !== undefined && !(await untilAnswers(`http://127.0.0.1:${ports.control}/fleet`, patienceMilliseconds)))
    throw new CommandRefused('The simulated fleet does not answer.', `See ${join(logs, 'standins.log')}.`)
  if (!(await untilAnswers(`${address}/api/v1/openapi.json`, patienceMilliseconds)))
    throw new CommandRefused('The pages do not answer.', `See ${join(logs, 'web.log')}.`)
  // Behind the pages, which somebody waits for. What is told leads back to them: behind a proxy they stand elsewhere.
  keep('worker', { ...withRecords, WENDREL_ADDRESS: process.env['WENDREL_ADDRESS'] ?? address }, account)
  // The first to come should not wait for what is loaded on first use.
  await Promise.all(
    ['/', '/sign-in', '/api/v1/plans', '/api/v1/changes'].map(path =>
      fetch(`${address}${path}`, { method: path.includes('plans') ? 'POST' : 'GET' }).catch(() => undefined),
    ),
  )
  if (ports !== undefined) await loadDemo(database, key, ports, say)
  const code = await firstCode({ database })
  await database.close()
  note(folder, address)
  announce(address, code, ports, ports === undefined ? undefined : await rateOf(folder))
}

async function beginFleet(folder: string, keep: Keep): Promise<FleetPorts> {
  const ports = await fleetPorts(folder)
  keep('standins', {
    ...production,
    FLEET_FOLDER: join(folder, 'fleet'),
    FLEET_PORTS: join(folder, 'fleet-ports.json'),
    FLEET_RATE: process.env['FLEET_RATE'] ?? '60',
  })
  return ports
}

/** Starts PostgreSQL, unless another server was given. @returns the address of our database */
async function beginDatabase(folder: string, started: Started[]): Promise<string> {
  const given = process.env['DATABASE_URL']
  let postgres: PrivatePostgres | undefined
  if (given === undefined) {
    say('starting PostgreSQL')
    postgres = await startPostgres(folder)
    started.push(keepUp(folder, postgres))
  }
  return databaseUrl(folder, given, postgres).catch((cause: unknown) => {
    throw new CommandRefused(
      `The database cannot be reached: ${cause instanceof Error ? cause.message : String(cause)}`,
      given === undefined ? `See ${join(folder, 'postgres.log')}.` : 'Check DATABASE_URL.',
    )
  })
}

/** The address of our database: of the server that was given, or under a role of our own in the private cluster. */
async function databaseUrl(
  folder: string,
  given: string | undefined,
  postgres: PrivatePostgres | undefined,
): Promise<string> {
  if (postgres === undefined) {
    await ensureDatabase(given ?? '')
    return given ?? ''
  }
  const file = join(folder, 'postgres.app-password')
  if (!existsSync(file)) writeFileSync(file, randomBytes(24).toString('base64url'), { mode: 0o600 })
  return ensureOwnDatabase(postgres.ownerUrl, readFileSync(file, 'utf8').trim())
}

/** How fast the fleet's clock runs: it goes on as it was when the fleet was ended. */
const rateOf = async (folder: string) => ((await fleet(folder, [])) as { readonly rate: number }).rate

function announce(address: string, code: string | undefined, ports: FleetPorts | undefined, rate = 0): void {
  const lines = ['', `Wendrel is at ${address}`]
  lines.push(
    code === undefined
      ? 'Sign in with the administrator that you have set.'
      : `First sign-in: open ${address}/welcome?code=${code} and choose a name and a password.`,
  )
  if (ports !== undefined) {
    lines.push(
      `Systems to register: http://127.0.0.1:${ports.arrays['heron']} (heron; name admin, password heron-demo) and http://127.0.0.1:${ports.arrays['curlew']} (curlew, to which heron mirrors; password curlew-demo). bittern and the bare nodes of godwit are registered already.`,
    )
    lines.push(
      `A directory: ldaps://127.0.0.1:${ports.directory}, read as cn=reader,ou=services,dc=marrowfield,dc=example, password directory-demo; services join by uid=v.grier,ou=people,dc=marrowfield,dc=example, password v.grier-demo.`,
      `Somebody to tell: http://127.0.0.1:${ports.desk.http}/told, smtp://127.0.0.1:${ports.desk.smtp}, udp://127.0.0.1:${ports.desk.syslog}; the night desk says at /received what it has.`,
    )
    lines.push(
      `The fleet's clock runs ${rate} times as fast: ./wendrel fleet rate 600, ./wendrel fleet fault heron slow, ./wendrel fleet clear`,
    )
  }
  lines.push('Ctrl-C ends everything; all data is kept.', '')
  process.stdout.write(`${lines.join('\n')}\n`)
}

/** Looks after PostgreSQL while we run: a server that has died is started again. */
function keepUp(folder: string, postgres: PrivatePostgres): { stop: () => void } {
  let isStarting = false
  const timer = setInterval(async () => {
    if (isStarting || !(await isFree(postgres.port))) return
    isStarting = true
    say('PostgreSQL has ended; it is started again')
    await startPostgres(folder).catch((cause: unknown) => say(cause instanceof Error ? cause.message : String(cause)))
    isStarting = false
  }, lookMilliseconds)
  return {
    stop: () => {
      clearInterval(timer)
      postgres.stop()
    },
  }
}
