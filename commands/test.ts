import { spawn, spawnSync } from 'node:child_process'
import { availableParallelism } from 'node:os'
import { join } from 'node:path'
import { CommandRefused } from './CommandRefused'

type Check = readonly [string, readonly string[]]

/** What unit tests wait for is half of their time: twice as many suites at a time as there are cores keep these busy. */
const workers = 2 * availableParallelism()

/** Of the sources alone: as many at a time as there are cores, those first that take longest, by what unit tests leave of the machine. */
const ofSources: readonly Check[] = [
  ['lint', ['eslint', '--max-warnings', '0', '.']],
  ['types', ['tsc', '--noEmit']],
  ['imports', ['depcruise', '--config', '.dependency-cruiser.cjs', 'src', 'commands', 'bench']],
  ['unused', ['knip']],
  ['format', ['biome', 'format', '--log-level=warn', '.']],
]
const units = 'unit tests'
const checks: readonly Check[] = [
  ...ofSources,
  [units, ['jest', '--config', 'jest.together.mjs', `--maxWorkers=${workers}`]],
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
 * Every check and every test; or one of them.
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
  const ended = async (check: Check) => {
    if (!(await holds(folder, check))) failed.push(check[0])
  }
  const sources = chosen.filter(check => ofSources.includes(check))
  const besides = Promise.all(
    Array.from({ length: availableParallelism() }, async () => {
      for (let check = sources.shift(); check !== undefined; check = sources.shift()) await ended(check)
    }),
  )
  const running = chosen.filter(check => !ofSources.includes(check))
  for (const check of running) {
    // The tests in the browser build the pages, which writes what types and lint read.
    if (check[0] !== units) await besides
    await ended(check)
  }
  await besides
  process.stdout.write(
    `${failed.length === 0 ? 'All checks passed' : `Failed: ${failed.join(', ')}`} in ${((Date.now() - began) / 60_000).toFixed(1)} minutes\n`,
  )
  process.stdout.write(`${chosen.length - failed.length} passed, ${failed.length} failed\n`)
  return failed.length === 0 ? 0 : 1
}

/** Runs one check: what runs for itself says what it says as it says it, one of the sources when it has ended. @returns whether it passed */
async function holds(folder: string, check: Check): Promise<boolean> {
  const [name, [program = '', ...args]] = check
  const isOfSources = ofSources.includes(check)
  const at = Date.now()
  if (!isOfSources) process.stdout.write(`— ${name}\n`)
  const command = [join(folder, 'node_modules/.bin', program), ...args]
  const [first = '', ...more] = isOfSources ? ['nice', '-n', '19', ...command] : command
  const running = spawn(first, more, {
    cwd: folder,
    stdio: isOfSources ? ['ignore', 'pipe', 'pipe'] : 'inherit',
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
  if (isOfSources) process.stdout.write(`— ${name}\n${said}`)
  process.stdout.write(`  ${name}: ${status === 0 ? 'passed' : 'FAILED'}, ${((Date.now() - at) / 1000).toFixed(0)} s\n`)
  return status === 0
}
