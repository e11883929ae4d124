import { spawn } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import http from 'node:http'
import { createServer, type AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { compiledShapes, shapesFile } from './compiledShapes'
import { freePort, isForPages, isFree } from './ports'
import { endOrphans } from './endOrphans'
import { fleet } from './fleet'
import { endLeftOver, KeptProcess } from './processes'
import { leaveFolder, note, takeFolder, whoRuns } from './runFile'
import { runVectors } from './vectors'

let folder: string
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'commands-'))))
afterEach(() => rmSync(folder, { recursive: true, force: true }))

test('a data folder is held by one start; what a dead one left is cleared away', () => {
  takeFolder(folder)
  note(folder, 'http://127.0.0.1:4180')
  expect(() => takeFolder(folder)).toThrow(/runs on this data folder already, at http/)
  leaveFolder(folder)
  expect(whoRuns(folder)).toBeUndefined()
  writeFileSync(
    join(folder, 'running.json'),
    JSON.stringify({ pid: process.pid, startedAt: 'another life of that number' }),
  )
  expect(whoRuns(folder)).toBeUndefined()
  writeFileSync(join(folder, 'running.json'), '{"pid": 1')
  expect(whoRuns(folder)).toBeUndefined()
})

test('the words for the fleet become what its control interface takes, and what it refuses is told', async () => {
  await expect(fleet(folder, ['clear'])).rejects.toThrow('No simulated fleet has been started')
  const asked: unknown[] = []
  const control = http.createServer((request, response) => {
    let body = ''
    request.on('data', part => (body += String(part)))
    request.on('end', () => {
      asked.push([request.method, request.url, body === '' ? undefined : JSON.parse(body)])
      response.statusCode = body.includes('nobody') ? 404 : 200
      response.end(JSON.stringify({ said: request.url }))
    })
  })
  await new Promise<void>(resolve => control.listen(0, '127.0.0.1', resolve))
  const { port } = control.address() as AddressInfo
  writeFileSync(join(folder, 'fleet-ports.json'), JSON.stringify({ control: port }))
  expect(await fleet(folder, [])).toEqual({ said: '/fleet' })
  await fleet(folder, ['rate', '600'])
  await fleet(folder, ['fault', 'heron', 'drive-fails', 'drive=3', 'times=2'])
  await fleet(folder, ['files', 'bittern', 'plates', '12'])
  await fleet(folder, ['clear'])
  expect(asked.slice(1)).toEqual([
    ['PUT', '/clock', { rate: 600 }],
    ['POST', '/faults', { target: 'heron', kind: 'drive-fails', drive: '3', times: 2 }],
    ['POST', '/files', { system: 'bittern', share: 'plates', count: 12 }],
    ['DELETE', '/faults/all', undefined],
  ])
  await expect(fleet(folder, ['fault', 'nobody', 'slow'])).rejects.toThrow('The fleet refused: {"said":"/faults"}')
  await expect(fleet(folder, ['rest'])).rejects.toThrow('fleet rest is not known.')
  control.close()
  control.closeAllConnections()
  await expect(fleet(folder, ['clear'])).rejects.toThrow('does not answer')
})

test('a taken port is seen, and another is found', async () => {
  const port = await freePort()
  const server = createServer()
  await new Promise<void>(resolve => server.listen(port, '127.0.0.1', resolve))
  expect(await isFree(port)).toBe(false)
  expect(await freePort(port)).not.toBe(port)
  server.close()
})

test('ports at which no browser opens pages are told', async () => {
  expect(await Promise.all([4190, 6000, await freePort()].map(isForPages))).toEqual([false, false, true])
})

test('a process that dies is started again, and one that is told to end stays ended', async () => {
  const said: string[] = []
  const kept = new KeptProcess(
    { name: 'sleeper', arguments: ['-e', 'setInterval(() => {}, 1000)'], environment: {}, folder },
    join(folder, 'logs'),
    line => said.push(line),
  )
  const pid = () => Number(readFileSync(join(folder, 'logs', 'sleeper.pid'), 'utf8'))
  const first = pid()
  process.kill(first, 'SIGKILL')
  for (let waited = 0; waited < 60_000 && pid() === first; waited += 50) await pause(50)
  expect(pid()).not.toBe(first)
  expect(said).toEqual(['sleeper was ended by SIGKILL; it is started again'])
  const second = pid()
  await kept.stop()
  await pause(500)
  expect(() => process.kill(second, 0)).toThrow()
  expect(pid()).toBe(second)
})

test('only what is ours is ended when an earlier start was killed', async () => {
  mkdirSync(join(folder, 'logs'))
  const stranger = spawn(process.execPath, ['-e', 'setInterval(() => {}, 1000)'])
  writeFileSync(join(folder, 'logs', 'worker.pid'), `${stranger.pid}`)
  expect(await endLeftOver(join(folder, 'logs'), ['worker', 'never-was'])).toBe(0)
  expect(stranger.exitCode).toBeNull()
  stranger.kill('SIGKILL')
})

test('what a killed start has left running is ended, by a folder of its own only', async () => {
  const logs = join(folder, 'logs')
  mkdirSync(logs, { recursive: true })
  // What runs a program of ours is known by its path.
  const orphan = spawn(process.execPath, ['-e', 'setInterval(() => {}, 1000)', '/some/.built/web.mjs'])
  writeFileSync(join(logs, 'web.pid'), `${orphan.pid}`)
  const ended = new Promise(done => orphan.once('exit', done))
  expect(await endOrphans(folder)).toBe(true)
  await ended
  expect(await endOrphans(folder)).toBe(false)
  expect(await endOrphans(join(folder, 'never-was'))).toBe(false)
})

test('worked cases are counted, a failing one is told with expected and got, an unknown subject fails', () => {
  const scored = (p50: number) => ({
    name: `case ${p50}`,
    input: { jobs: [{ p10: 90, p50, p90: 120, actual: 100 }] },
    expected: { medianAbsolutePercentageError: 0, coverage: 1 },
  })
  writeFileSync(
    join(folder, 'a.json'),
    JSON.stringify({ subject: 'transfer-scoring', tolerance: 1e-9, cases: [scored(100), scored(110)] }),
  )
  writeFileSync(
    join(folder, 'b.json'),
    JSON.stringify({ subject: 'weather', tolerance: 0, cases: [{ name: 'rain', input: {}, expected: {} }] }),
  )
  const lines: string[] = []
  expect(runVectors(folder, line => lines.push(line))).toBe(1)
  expect(lines).toEqual([
    'a.json: case 110: medianAbsolutePercentageError: expected 0, got 0.1',
    'not computed yet: weather (1 cases)',
    '1 passed, 1 failed',
  ])
  // Asked for by name, what is not computed fails, and so does what no file is of.
  expect(runVectors(folder, () => undefined, ['weather'])).toBe(1)
  expect(runVectors(folder, () => undefined, ['tides'])).toBe(1)
  expect(() => runVectors(join(folder, 'nowhere'), () => undefined)).toThrow(/cannot be read/)
})

test('the schemas that the browser has are those of core', async () => {
  expect(readFileSync(shapesFile, 'utf8') === (await compiledShapes())).toBe(true)
})
