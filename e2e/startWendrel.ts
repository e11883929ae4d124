import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { kept, type Estate } from './estate'

const patienceMilliseconds = 480_000
const project = resolve(import.meta.dirname, '..')

interface Started {
  readonly estate: Estate
  readonly end: () => Promise<void>
}

/** Starts everything as an administrator does, once for each process of tests; @returns what ends and forgets it */
export default async function startWendrel({ workers }: { readonly workers: number }): Promise<() => Promise<void>> {
  // One after another: the first builds what serves all, and each takes ports that are free then.
  const all: Started[] = []
  while (all.length < workers) all.push(await start())
  process.env[kept] = JSON.stringify(all.map(each => each.estate))
  return async () => {
    await Promise.all(all.map(each => each.end()))
  }
}

/** One estate, on a data folder of its own. */
async function start(): Promise<Started> {
  const folder = mkdtempSync(join(tmpdir(), 'wendrel-e2e-'))
  const environment = { ...process.env, WENDREL_DATA: folder, FLEET_RATE: '3600', WENDREL_FLUSH: 'none' }
  const child = spawn('./wendrel', ['demo'], { cwd: project, env: environment, stdio: ['ignore', 'pipe', 'pipe'] })
  let said = ''
  await new Promise<void>((done, fail) => {
    const late = setTimeout(() => fail(new Error(`Wendrel did not start:\n${said}`)), patienceMilliseconds)
    const hear = (part: Buffer) => {
      said += part.toString()
      if (!said.includes('Ctrl-C ends everything')) return
      clearTimeout(late)
      done()
    }
    child.stdout.on('data', hear)
    child.stderr.on('data', hear)
    child.once('exit', code => fail(new Error(`Wendrel ended with ${code}:\n${said}`)))
  })
  const found = (pattern: RegExp) => pattern.exec(said)?.[1] ?? ''
  const { arrays } = JSON.parse(readFileSync(join(folder, 'fleet-ports.json'), 'utf8')) as {
    arrays: Record<string, number>
  }
  const end = async () => {
    child.removeAllListeners('exit')
    const ended = new Promise(done => child.once('exit', done))
    child.kill('SIGTERM')
    await ended
    await new Promise(done =>
      spawn('./wendrel', ['reset', '--yes'], { cwd: project, env: environment, stdio: 'ignore' }).once('exit', done),
    )
  }
  return {
    estate: {
      address: found(/Wendrel is at (\S+)/),
      code: found(/code=(\S+)/),
      heron: found(/register: (\S+)/),
      godwit: `http://127.0.0.1:${arrays['godwit']}`,
      data: folder,
    },
    end,
  }
}
