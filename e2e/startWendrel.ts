import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'

const patienceMilliseconds = 240_000

/** Starts everything as an administrator does, on a data folder of its own; @returns what ends and forgets it */
export default async function startWendrel(): Promise<() => Promise<void>> {
  const folder = mkdtempSync(join(tmpdir(), 'wendrel-e2e-'))
  const project = resolve(import.meta.dirname, '..')
  const environment = { ...process.env, WENDREL_DATA: folder, FLEET_RATE: '3600' }
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
  process.env['WENDREL_ADDRESS'] = found(/Wendrel is at (\S+)/)
  process.env['WENDREL_CODE'] = found(/code=(\S+)/)
  process.env['WENDREL_HERON'] = found(/register: (\S+)/)
  process.env['WENDREL_E2E_DATA'] = folder
  const { arrays } = JSON.parse(readFileSync(join(folder, 'fleet-ports.json'), 'utf8')) as {
    arrays: Record<string, number>
  }
  process.env['WENDREL_GODWIT'] = `http://127.0.0.1:${arrays['godwit']}`
  return async () => {
    child.removeAllListeners('exit')
    const ended = new Promise(done => child.once('exit', done))
    child.kill('SIGTERM')
    await ended
    await new Promise(done =>
      spawn('./wendrel', ['reset', '--yes'], { cwd: project, env: environment, stdio: 'ignore' }).once('exit', done),
    )
  }
}
