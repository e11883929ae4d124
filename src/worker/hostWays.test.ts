import http from 'node:http'
import net, { type AddressInfo } from 'node:net'
import { those } from '@/core/estate'
import { suggestedLine } from '@/core/hosts'
import { evidenceOf } from '@/records/changes'
import { run } from '@/records/database'
import { hostWays, standingFindings, unknownHosts } from '@/records/queries'
import { blocks } from './testing/blocks'

let bench: Awaited<ReturnType<typeof blocks>>
beforeAll(async () => {
  // Hosts are asked four times a minute.
  bench = await blocks({ pace: 10 })
})
afterAll(() => bench.close())

const ways = async () => {
  const volume = await bench.volume()
  return hostWays({ database: bench.database }, { naa: volume?.naa ?? '' })
}
const checks = async () =>
  (await standingFindings({ database: bench.database }, null)).map(({ finding }) => finding.check)
const down = (controller: string) =>
  bench.fleet.faults.inject({
    target: 'heron',
    kind: 'controller-down',
    milliseconds: 0,
    retryAfterSeconds: 0,
    atRatio: 0,
    drive: '',
    times: 0,
    controller,
  })

test('each way of a host to a volume is known, with the controller at which it ends', async () => {
  await bench.until(async () => (await ways()).length > 0, 'the host has told of its ways')
  const [seen] = await ways()
  expect(seen).toMatchObject({ hostName: 'register-1', systemName: 'heron', disk: { name: 'register-data-01' } })
  expect(seen?.ways.map(({ controller, isUp }) => `${controller} ${isUp}`)).toEqual([
    'Controller A true',
    'Controller A true',
    'Controller B true',
    'Controller B true',
  ])
  expect(await hostWays({ database: bench.database }, { hostId: seen?.hostId ?? '' })).toHaveLength(1)
  expect(await checks()).not.toContain('one-controller')
})

test('a host that names a disk twice is heard once, and keeps nobody from hearing of the others', async () => {
  const shown = { volumeId: bench.ids['volume'], hostGroupId: bench.ids['catalogue'] }
  await bench.done('map-volume', shown)
  await bench.until(async () => (await ways()).length === 2, 'both hosts have told of their ways')
  const { naa } = (await bench.volume()) ?? { naa: '' }
  const device = { naa, sizeBytes: '1', lun: 77, path: '/dev/\u0000a', paths: [{ target: 'none\ud800', isUp: true }] }
  const nonsense = http.createServer((_, response) => response.end(JSON.stringify({ devices: [device, device] })))
  await new Promise<void>(resolve => nonsense.listen(0, '127.0.0.1', resolve))
  const address = `http://127.0.0.1:${(nonsense.address() as AddressInfo).port}`
  const moved = `update hosts set agent_address = $2 where name = $1`
  await run({ database: bench.database }, moved, ['register-2', address])
  const told = async () => (await ways()).find(({ hostName }) => hostName === 'register-2')
  await bench.until(async () => (await told())?.lun === 77, 'it is heard')
  expect((await ways()).map(({ hostName }) => hostName).sort()).toEqual(['register-1', 'register-2'])
  await run({ database: bench.database }, moved, [
    'register-2',
    `http://127.0.0.1:${bench.fleet.ports.hosts['register-2']}`,
  ])
  nonsense.close()
  nonsense.closeAllConnections()
  await bench.done('unmap-volume', shown)
  await bench.until(async () => (await ways()).length === 1, 'its ways are let go')
})

test('a controller that goes out is a finding of every host that is left with one; it clears when it is back', async () => {
  const volume = await bench.volume()
  const range = { offsetBytes: '0', lengthBytes: 4096, seed: 'x' }
  const write = async () => (await bench.agent('register-1', `/devices/${volume?.naa}/write`, range)).status
  down('A')
  await bench.until(async () => (await checks()).includes('one-controller'), 'it is told that one controller is left')
  // The other controller's ways go on.
  expect(await write()).toBe(200)
  down('B')
  await bench.until(async () => (await checks()).includes('no-path'), 'it is told that nothing is reached')
  expect(await write()).toBe(503)
  bench.fleet.faults.clear()
  await bench.until(async () => (await checks()).every(each => each !== 'no-path'), 'it clears')
  expect(await write()).toBe(200)
})

test('a host that falls silent says nothing: what it said last stands, and the others are heard as before', async () => {
  down('A')
  await bench.until(async () => (await checks()).includes('one-controller'), 'it is told that one controller is left')
  let times = 0
  const silent = net.createServer(socket => {
    times += 1
    socket.destroy()
  })
  await new Promise<void>(resolve => silent.listen(0, '127.0.0.1', resolve))
  const moved = `update hosts set agent_address = $1 where name = 'register-1'`
  const { port } = silent.address() as AddressInfo
  await run({ database: bench.database }, moved, [`http://127.0.0.1:${port}`])
  bench.fleet.faults.clear()
  // When it is asked once more, what came of asking it before has been noted.
  await bench.until(() => Promise.resolve(times > 1), 'it is asked again and again')
  expect(await checks()).toContain('one-controller')
  // Another process knows by the records what it has said.
  await bench.restartWorker()
  const before = times
  await bench.until(() => Promise.resolve(times > before + 1), 'it is asked by the next process')
  expect(await checks()).toContain('one-controller')
  await run({ database: bench.database }, moved, [`http://127.0.0.1:${bench.fleet.ports.hosts['register-1']}`])
  silent.close()
  await bench.until(async () => !(await checks()).includes('one-controller'), 'it says so itself')
})

test('who logs in and is in no group is found by the name that it shows, and is told of until it is registered', async () => {
  const scope = { database: bench.database }
  const { ports } = await bench.estate([those('ports', 'systemId', bench.ids['heron'])])
  const target = ports.find(each => each.targetName !== null)?.targetName
  const strangers = async () => (await unknownHosts(scope)).items.filter(({ groups }) => groups.length === 0)
  expect(await strangers()).toEqual([])
  expect((await bench.agent('scanner-gate', '/logins', { target })).status).toBe(200)
  await bench.until(async () => (await strangers()).length > 0, 'the name by which it logged in')
  const [found] = await strangers()
  expect(found).toMatchObject({ systems: ['heron'] })
  await bench.done('register-hosts', { list: suggestedLine(found?.initiator ?? '', undefined) })
  expect(await strangers()).not.toContainEqual(found)
})

test('a host that joins a group later is let in by the system on its word, and until then it is told of', async () => {
  const agentAddress = `http://127.0.0.1:${bench.fleet.ports.hosts['tickets']}`
  await bench.done('register-host', { agentAddress, groupName: 'accession-register' })
  await bench.until(async () => (await checks()).includes('group-lacks'), 'it is told of')
  const intent = { systemId: bench.ids['heron'], hostGroupId: bench.ids['accession-register'] }
  const change = await bench.done('align-group', intent)
  expect(change.title).toBe('Let all hosts of accession-register in on heron')
  const evidence = await evidenceOf({ database: bench.database }, change.id)
  expect(evidence.map(({ claim }) => claim)).toContain('tickets sees what the group is shown')
  await bench.until(async () => !(await checks()).includes('group-lacks'), 'it clears')
  expect(await bench.refused('align-group', intent)).toEqual(['lacking'])
})

test('a host to which a system shows nothing any more has no ways to it', async () => {
  await bench.done('unmap-volume', { volumeId: bench.ids['volume'], hostGroupId: bench.ids['accession-register'] })
  await bench.until(async () => (await ways()).length === 0, 'its ways are let go')
})
