import { spawn, type ChildProcess } from 'node:child_process'
import { createWriteStream, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Account } from './account'

interface Program {
  readonly name: string
  readonly arguments: readonly string[]
  /** All that it gets besides what every process needs: secrets go only to who works with them. */
  readonly environment: Readonly<Record<string, string>>
  readonly folder: string
  readonly account?: Account | undefined
}

const graceMilliseconds = 8000
/** One that lived this long had started: its end is no reason to wait before the next start. */
const calmMilliseconds = 1500
const longestPauseMilliseconds = 30_000
const secrets = /^(DATABASE_URL|WENDREL_KEY|WENDREL_KEY_FILE|PG[A-Z]+)$/
const inherited = (): NodeJS.ProcessEnv =>
  Object.fromEntries(Object.entries(process.env).filter(([name]) => !secrets.test(name))) as NodeJS.ProcessEnv

/**
 * What our processes run with. By the number of cores the C library would keep as many places of its own from which it gives memory, and
 * give little of it back to the machine. Source: mallopt(3), M_ARENA_MAX.
 */
export const production = { NODE_ENV: 'production', NEXT_TELEMETRY_DISABLED: '1', MALLOC_ARENA_MAX: '2' } as const

/** A process that is kept running: one that dies is started again, after a pause that grows while it keeps dying. Its output goes to a file of the data folder. */
export class KeptProcess {
  #child: ChildProcess | undefined
  #isEnding = false
  #failures = 0
  #startedAt = 0

  constructor(
    private readonly program: Program,
    private readonly logFolder: string,
    private readonly say: (line: string) => void,
  ) {
    mkdirSync(logFolder, { recursive: true })
    this.#start()
  }

  async stop(): Promise<void> {
    this.#isEnding = true
    const child = this.#child
    if (child === undefined || child.exitCode !== null || child.signalCode !== null) return
    await new Promise<void>(resolve => {
      const force = setTimeout(() => child.kill('SIGKILL'), graceMilliseconds)
      child.once('exit', () => {
        clearTimeout(force)
        resolve()
      })
      child.kill('SIGTERM')
    })
  }

  #start(): void {
    this.#startedAt = Date.now()
    const log = createWriteStream(join(this.logFolder, `${this.program.name}.log`), { flags: 'a' })
    // A group of its own: Ctrl-C reaches only us, and we end what we started in order.
    const child = spawn(process.execPath, this.program.arguments, {
      cwd: this.program.folder,
      env: { ...inherited(), ...this.program.environment },
      ...(this.program.account ?? {}),
      stdio: ['ignore', 'pipe', 'pipe'],
      detached: true,
    })
    writeFileSync(join(this.logFolder, `${this.program.name}.pid`), `${child.pid ?? ''}`)
    child.stdout?.pipe(log)
    child.stderr?.pipe(log)
    child.once('exit', (code, signal) => this.#ended(code, signal))
    this.#child = child
  }

  #ended(code: number | null, signal: NodeJS.Signals | null): void {
    if (this.#isEnding) return
    this.#failures = Date.now() - this.#startedAt > calmMilliseconds ? 1 : this.#failures + 1
    const how = signal === null ? `ended with ${code}` : `was ended by ${signal}`
    const pause = Math.min(longestPauseMilliseconds, 300 * 2 ** (this.#failures - 1))
    const log = join(this.logFolder, `${this.program.name}.log`)
    this.say(
      `${this.program.name} ${how}; it is started again${pause > 5000 ? ` in ${Math.round(pause / 1000)} s; see ${log}` : ''}`,
    )
    setTimeout(() => {
      if (!this.#isEnding) this.#start()
    }, pause)
  }
}

/** What runs on a data folder, beside PostgreSQL. */
const programNames = ['web', 'worker', 'standins'] as const

/**
 * Ends what a start that was itself killed has left running: processes that its files name and that are still ours.
 * @returns how many
 */
export async function endLeftOver(logFolder: string, names: readonly string[] = programNames): Promise<number> {
  let ended = 0
  for (const name of names) {
    const file = join(logFolder, `${name}.pid`)
    if (!existsSync(file)) continue
    const pid = Number(readFileSync(file, 'utf8'))
    const isOurs = () =>
      pid > 0 &&
      existsSync(`/proc/${pid}/cmdline`) &&
      /\.built\/|next/.test(readFileSync(`/proc/${pid}/cmdline`, 'utf8'))
    if (isOurs()) {
      process.kill(pid, 'SIGTERM')
      ended += 1
    }
    for (let waited = 0; waited < graceMilliseconds && isOurs(); waited += 100)
      await new Promise(resolve => setTimeout(resolve, 100))
    if (isOurs()) process.kill(pid, 'SIGKILL')
    rmSync(file, { force: true })
  }
  return ended
}

/** Waits until an address answers at all. */
export async function untilAnswers(url: string, patienceMilliseconds: number): Promise<boolean> {
  const until = Date.now() + patienceMilliseconds
  while (Date.now() < until) {
    const isThere = await fetch(url, { signal: AbortSignal.timeout(2000) }).then(
      async response => {
        await response.body?.cancel()
        return true
      },
      () => false,
    )
    if (isThere) return true
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  return false
}
