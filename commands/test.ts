import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { CommandRefused } from './CommandRefused'

const checks: readonly (readonly [string, readonly string[]])[] = [
  ['format', ['prettier', '--check', '--log-level', 'warn', '.']],
  ['types', ['tsc', '--noEmit']],
  ['lint', ['eslint', '--max-warnings', '0', '.']],
  ['imports', ['depcruise', '--config', '.dependency-cruiser.cjs', 'src', 'commands', 'bench']],
  ['unused', ['knip']],
  ['unit tests', ['jest']],
  ['end to end', ['playwright', 'test']],
]

/** Run when they are asked for: every kind of change with every process killed in it takes a quarter of an hour. */
const onDemand: typeof checks = [['kills', ['playwright', 'test', '--config', 'e2e/kills/playwright.config.ts']]]

/**
 * Every check and every test, in the order in which they are quickest to fail; or one of them.
 * @param part its name, or the beginning of it
 * @returns the exit code
 */
export function test(folder: string, part?: string): number {
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
  for (const [name, [program = '', ...args]] of chosen) {
    const at = Date.now()
    process.stdout.write(`— ${name}\n`)
    const ran = spawnSync(join(folder, 'node_modules/.bin', program), args, {
      cwd: folder,
      stdio: 'inherit',
      env: { ...process.env, CI: 'true', NEXT_TELEMETRY_DISABLED: '1' },
    })
    process.stdout.write(
      `  ${name}: ${ran.status === 0 ? 'passed' : 'FAILED'}, ${((Date.now() - at) / 1000).toFixed(0)} s\n`,
    )
    if (ran.status !== 0) failed.push(name)
  }
  process.stdout.write(
    `${failed.length === 0 ? 'All checks passed' : `Failed: ${failed.join(', ')}`} in ${((Date.now() - began) / 60_000).toFixed(1)} minutes\n`,
  )
  process.stdout.write(`${chosen.length - failed.length} passed, ${failed.length} failed\n`)
  return failed.length === 0 ? 0 : 1
}
