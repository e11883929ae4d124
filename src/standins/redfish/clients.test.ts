import { execFile } from 'node:child_process'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { testFleet } from '../testing/serviceOf'

/** Clients that nobody here wrote: a library in Python and a command, both from the system's packages. */
const run = promisify(execFile)
let bench: Awaited<ReturnType<typeof testFleet>>
beforeAll(async () => {
  bench = await testFleet(1)
})
afterAll(() => bench.stop())

const port = (system: string) => bench.fleet.ports.arrays[system] ?? 0
const walk = async (system: string, scheme: 'basic' | 'session') => {
  const script = join(__dirname, 'testing', 'walk.py')
  const address = `http://127.0.0.1:${port(system)}`
  const { stdout } = await run('/usr/bin/python3', [script, address, 'admin', `${system}-demo`, scheme])
  return JSON.parse(stdout) as Record<string, unknown>
}
const command = async (system: string, ...words: string[]) => {
  const way = ['-r', `127.0.0.1:${port(system)}`, '-S', 'Never', '-u', 'admin', '-p', `${system}-demo`]
  const { stdout } = await run('/usr/bin/redfishtool', [...way, ...words])
  return stdout === '' ? {} : (JSON.parse(stdout) as Record<string, unknown>)
}

test.each(['basic', 'session'] as const)('a client library walks an array, signed in by %s', async scheme => {
  const array = bench.fleet.arrays.find(each => each.model.name === 'bittern')
  expect(await walk('bittern', scheme)).toMatchObject({
    uuid: array?.model.uuid,
    chassis: array?.model.enclosures.map(each => each.id),
    managers: [array?.model.firmware],
    sessions: scheme === 'session' ? 1 : 0,
    events: 'EventService',
    fabrics: { SAN: expect.arrayContaining(['target-A1']) },
  })
})

test('a client library walks a row of nodes, finds the drives of a node and resets it', async () => {
  const { row } = bench.fleet
  const [node] = row.all('nodes')
  const drives = row.array.all('drives').filter(each => each.enclosureId === node?.id)
  const found = await walk('godwit', 'basic')
  expect(found['node']).toEqual({
    power: 'On',
    maker: 'Mirefield',
    resets: ['ForceOff', 'ForceRestart', 'GracefulRestart', 'GracefulShutdown', 'On'],
    interfaces: 2,
    drives: drives.map(each => each.serial),
    chassis: [node?.id],
    managers: [node?.id],
    afterReset: 'UnavailableOffline',
  })
  expect(row.one('nodes', node?.id ?? '').restartingUntil).not.toBeNull()
})

test('a command lists, shows and resets, with a session of its own that it ends', async () => {
  const list = await command('godwit', '-A', 'Session', 'Systems', 'list')
  expect(list['Members@odata.count']).toBe(bench.fleet.row.all('nodes').length)
  expect(await command('godwit', 'Chassis', '-I', 'godwit-2', 'get')).toMatchObject({ Id: 'godwit-2' })
  await command('godwit', '-A', 'Session', 'Systems', '-I', 'godwit-2', 'reset', 'ForceOff')
  expect(bench.fleet.row.one('nodes', 'godwit-2').isUp).toBe(false)
  const { body } = await bench.ask('godwit', 'GET', '/redfish/v1/SessionService/Sessions')
  expect(body['Members']).toEqual([])
  await expect(command('godwit', 'Systems', '-I', 'none', 'get')).rejects.toThrow()
})
