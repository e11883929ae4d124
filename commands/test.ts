import { spawnSync } from 'node:child_process'
import { join } from 'node:path'

const checks: readonly (readonly [string, readonly string[]])[] = [
  ['format', ['prettier', '--check', '--log-level', 'warn', '.']],
  ['types', ['tsc', '--noEmit']],
  ['lint', ['eslint', '--max-warnings', '0', '.']],
  ['imports', ['depcruise', '--config', '.dependency-cruiser.cjs', 'src', 'commands', 'bench']],
  ['unused', ['knip']],
  ['unit tests', ['jest']],
  ['end to end', ['playwright', 'test']],
]

/** Every check and every test, in the order in which they are quickest to fail. @returns the exit code */
export function test(folder: string): number {
  const began = Date.now()
  // Route types come from Next; without them a clean checkout would not pass the type check.
  const typed = spawnSync(process.execPath, [join(folder, 'node_modules/next/dist/bin/next'), 'typegen'], {
    cwd: folder,
    encoding: 'utf8',
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
  })
  if (typed.status !== 0) process.stderr.write(`${typed.stdout}${typed.stderr}`)
  const failed: string[] = []
  for (const [name, [program = '', ...args]] of checks) {
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
  process.stdout.write(`${checks.length - failed.length} passed, ${failed.length} failed\n`)
  return failed.length === 0 ? 0 : 1
}
