import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { kept, type Estate } from './estate'

const patienceMilliseconds = 480_000
const project = resolve(import.meta.dirname, '..')

interface Started {
  readonly estate: Estate
  readonly end: () => Promise<void>
}

/** Starts everything as an administrator does, once for each process of tests; @returns what ends and forgets it */
export default async function startWendrel({ workers }: { readonly workers: number }): Promise<() => Promise<void>> {
  // The first builds what serves all, and each takes ports that are free: the next begins when that one listens at its own.
  const beginning: (() => Promise<Started>)[] = []
  while (beginning.length < workers) beginning.push(await start())
  const all = await Promise.all(beginning.map(complete => complete()))
  process.env[kept] = JSON.stringify(all.map(each => each.estate))
  return async () => {
    await Promise.all(all.map(each => each.end()))
  }
}

/** What is said when all of an estate listens, and is about to be filled; and at the end. */
const words = { listening: 'loading ', complete: 'Ctrl-C ends everything' }

/** One estate, on a data folder of its own. @returns once all of it listens, what waits until it is complete */
async function start(): Promise<() => Promise<Started>> {
  const folder = mkdtempSync(join(tmpdir(), 'wendrel-e2e-'))
  const environment = { ...process.env, WENDREL_DATA: folder, FLEET_RATE: '3600', WENDREL_FLUSH: 'none' }
  const child = spawn('./wendrel', ['demo'], { cwd: project, env: environment, stdio: ['ignore', 'pipe', 'pipe'] })
  let said = ''
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (part: Buffer) => (said += part.toString()))
  const until = async (word: string) => {
    const lateAt = Date.now() + patienceMilliseconds
    while (!said.includes(word)) {
      if (child.exitCode !== null) throw new Error(`Wendrel ended with ${child.exitCode}:\n${said}`)
      if (Date.now() > lateAt) throw new Error(`Wendrel did not start:\n${said}`)
      await pause(50)
    }
  }
  const found = (pattern: RegExp) => pattern.exec(said)?.[1] ?? ''
  const ended = new Promise(done => child.once('exit', done))
  const end = async () => {
    child.kill('SIGTERM')
    await ended
    await new Promise(done =>
      spawn('./wendrel', ['reset', '--yes'], { cwd: project, env: environment, stdio: 'ignore' }).once('exit', done),
    )
  }
  await until(words.listening)
  return async () => {
    await until(words.complete)
    const ports = readFileSync(join(folder, 'fleet-ports.json'), 'utf8')
    const { arrays } = JSON.parse(ports) as { readonly arrays: Record<string, number> }
    const estate = {
      address: found(/Wendrel is at (\S+)/),
      code: found(/code=(\S+)/),
      heron: found(/register: (\S+)/),
      godwit: `http://127.0.0.1:${arrays['godwit']}`,
      data: folder,
    }
    return { estate, end }
  }
}
