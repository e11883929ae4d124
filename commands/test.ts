import { spawn, spawnSync } from 'node:child_process'
import { availableParallelism } from 'node:os'
import { join } from 'node:path'
import { CommandRefused } from './CommandRefused'

type Check = readonly [string, readonly string[]]

/** What unit tests wait for is half of their time: one file more at a time than there are cores keeps these busy. */
const workers = availableParallelism() + 1

/** Of the sources alone: as many at a time as there are cores, those first that take longest. */
const ofSources: readonly Check[] = [
  ['lint', ['eslint', '--max-warnings', '0', '.']],
  ['types', ['tsc', '--noEmit']],
  ['imports', ['depcruise', '--config', '.dependency-cruiser.cjs', 'src', 'commands', 'bench']],
  ['unused', ['knip']],
  ['format', ['biome', 'format', '--log-level=warn', '.']],
]
/** What runs has the machine to itself. */
const checks: readonly Check[] = [
  ...ofSources,
  ['unit tests', ['jest', '--config', 'jest.together.mjs', `--maxWorkers=${workers}`]],
  ['end to end', ['playwright', 'test']],
]

/**
 * What reads all sources, or loads them anew for each test file, makes much that it soon lets go: with more room for that (MiB) it is
 * tidied more seldom. What the tests in the browser start has the room that it has with whoever runs it.
 */
const roomy = { NODE_OPTIONS: `${process.env['NODE_OPTIONS'] ?? ''} --max-semi-space-size=64`.trim() }

/** Run when they are asked for: every kind of change with every process killed in it takes some forty minutes. */
const onDemand: readonly Check[] = [['kills', ['playwright', 'test', '--config', 'e2e/kills/playwright.config.ts']]]

/**
 * Every check and every test, those of the sources first; or one of them.
 * @param part its name, or the beginning of it
 * @returns the exit code
 */
export async function test(folder: string, part?: string): Promise<number> {
  const began = Date.now()
  const chosen = part === undefined ? checks : [...checks, ...onDemand].filter(([name]) => name.startsWith(part))
  if (chosen.length === 0)
    throw new CommandRefused(
      `There is no part ${part ?? ''}.`,
      `The parts are ${[...checks, ...onDemand].map(([name]) => name).join(', ')}.`,
    )
  // Route types come from Next; without them a clean checkout would not pass the type check.
  const typed = spawnSync(process.execPath, [join(folder, 'node_modules/next/dist/bin/next'), 'typegen'], {
    cwd: folder,
    encoding: 'utf8',
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
  })
  if (typed.status !== 0) process.stderr.write(`${typed.stdout}${typed.stderr}`)
  const failed: string[] = []
  const ended = async (check: Check, isAlone: boolean) => {
    if (!(await holds(folder, check, isAlone))) failed.push(check[0])
  }
  const left = chosen.filter(check => ofSources.includes(check))
  await Promise.all(
    Array.from({ length: availableParallelism() }, async () => {
      for (let check = left.shift(); check !== undefined; check = left.shift()) await ended(check, false)
    }),
  )
  for (const check of chosen.filter(each => !ofSources.includes(each))) await ended(check, true)
  process.stdout.write(
    `${failed.length === 0 ? 'All checks passed' : `Failed: ${failed.join(', ')}`} in ${((Date.now() - began) / 60_000).toFixed(1)} minutes\n`,
  )
  process.stdout.write(`${chosen.length - failed.length} passed, ${failed.length} failed\n`)
  return failed.length === 0 ? 0 : 1
}

/** Runs one check. @param isAlone what it says is told as it says it; else when it has ended @returns whether it passed */
async function holds(folder: string, [name, [program = '', ...args]]: Check, isAlone: boolean): Promise<boolean> {
  const at = Date.now()
  if (isAlone) process.stdout.write(`— ${name}\n`)
  const running = spawn(join(folder, 'node_modules/.bin', program), args, {
    cwd: folder,
    stdio: isAlone ? 'inherit' : ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, ...(program === 'playwright' ? {} : roomy), CI: 'true', NEXT_TELEMETRY_DISABLED: '1' },
  })
  let said = ''
  for (const stream of [running.stdout, running.stderr]) stream?.on('data', part => (said += String(part)))
  const status = await new Promise<number | null>(resolve => {
    running.once('close', resolve)
    running.once('error', cause => {
      said += cause.message
      resolve(null)
    })
  })
  if (!isAlone) process.stdout.write(`— ${name}\n${said}`)
  process.stdout.write(`  ${name}: ${status === 0 ? 'passed' : 'FAILED'}, ${((Date.now() - at) / 1000).toFixed(0)} s\n`)
  return status === 0
}
