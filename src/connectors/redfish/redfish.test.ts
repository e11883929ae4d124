import http from 'node:http'
import { X509Certificate } from 'node:crypto'
import https from 'node:https'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { anyPorts, startFleet, type Fleet } from '@/standins'
import { failDrive } from '@/standins/array'
import type { FaultKind } from '@/standins/fleet'
import type { StorageSystem } from '@/ports'
import { hostAgent } from '../host'
import { redfish } from '.'
import { certificate, privateKey } from './testing/certificate'

const { identify, lookAt, reach: redfishSystem } = redfish

const never = new AbortController().signal
const credentials = { userName: 'admin', password: 'heron-demo' }
let folder: string
let fleet: Fleet
let address: string
let heron: StorageSystem

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'fleet-'))
  fleet = await startFleet(folder, anyPorts, 36_000)
  address = `http://127.0.0.1:${fleet.ports.arrays['heron']}`
  heron = redfishSystem({ address, acceptedFingerprint: null }, credentials, never)
})
afterAll(async () => {
  await fleet.stop()
  rmSync(folder, { recursive: true })
})

const looked = async (at: string, given = credentials) =>
  lookAt({ address: at, acceptedFingerprint: null }, await identify({ address: at }, never), given, never)
const strike = (kind: FaultKind, times = 1) =>
  fleet.faults.inject({
    target: 'heron',
    kind,
    milliseconds: 50,
    retryAfterSeconds: 0.05,
    atRatio: 0.7,
    drive: '',
    times,
  })

async function done(task: string | null): Promise<string> {
  for (;;) {
    if (task === null) return 'done'
    const { state } = await (await heron.of('tasks')).at(task)
    if (state !== 'running') return state
    await pause(50)
  }
}

const drives = async () => (await heron.inventory()).drives
const poolOf = async (name: string, from: number, count: number) => {
  const locators = (await drives()).slice(from, from + count).map(drive => drive.locator)
  return {
    name,
    scheme: { kind: 'parity' as const, parityDrives: 2 },
    groups: [locators],
    spares: [],
    snapshotReserveRatio: 0.1,
  }
}

test('a first look finds who it is and what it has, and warns of plain HTTP', async () => {
  const look = await looked(address)
  expect(look.isEncrypted).toBe(false)
  expect(look).toMatchObject({ maker: 'Tallis & Thorne', controllers: 2, enclosures: 1, pools: 0, volumes: 0 })
  expect(look.drives).toMatchObject([{ count: 24 }])
  const inventory = await heron.inventory()
  expect(inventory.identity.name).toBe('heron')
  expect(inventory.drives).toHaveLength(24)
  expect(inventory.drives[0]).toMatchObject({ media: 'SSD', protocol: 'NVMe', role: 'unassigned', bay: 1 })
  expect(inventory.enclosures).toEqual([expect.objectContaining({ bayCount: 24, baysPerRow: 24 })])
  expect(inventory.ports.map(port => port.address)).toEqual(['10.60.1.11', '10.60.1.12', '10.60.1.21', '10.60.1.22'])
})

test('a wrong password, a closed port and a stranger are told apart', async () => {
  await expect(looked(address, { ...credentials, password: 'wrong' })).rejects.toMatchObject({
    code: 'system.sign-in-refused',
  })
  await expect(looked('http://127.0.0.1:9')).rejects.toMatchObject({
    code: 'connection.not-reached',
  })
  await expect(looked(`http://127.0.0.1:${fleet.ports.hosts['desk-1']}`)).rejects.toMatchObject({
    code: 'system.no-storage-system',
  })
})

test('a certificate that no authority signed is shown, and only the accepted one is trusted', async () => {
  const server = https.createServer({ cert: certificate, key: privateKey }, (incoming, outgoing) => {
    const onward = http.request(
      `${address}${incoming.url}`,
      { method: incoming.method, headers: incoming.headers },
      answer => {
        outgoing.writeHead(answer.statusCode ?? 500, answer.headers)
        answer.pipe(outgoing)
      },
    )
    incoming.pipe(onward)
  })
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  const secure = `https://127.0.0.1:${(server.address() as { port: number }).port}`
  const look = await identify({ address: secure }, never)
  await expect(looked(secure)).rejects.toMatchObject({ code: 'connection.certificate-changed' })
  expect(look).toMatchObject({
    isEncrypted: true,
    certificateTrouble: expect.stringMatching(/SELF_SIGNED/),
    certificateFingerprint: expect.stringMatching(/^([0-9A-F]{2}:){31}/),
  })
  const trusted = redfishSystem(
    { address: secure, acceptedFingerprint: look.certificateFingerprint },
    credentials,
    never,
  )
  expect(trusted.certificateEndsAt()).toBeNull()
  await expect(trusted.identity()).resolves.toMatchObject({ name: 'heron' })
  expect(trusted.certificateEndsAt()).toEqual(new Date(new X509Certificate(certificate).validTo))
  expect(heron.certificateEndsAt()).toBeNull()
  const stranger = redfishSystem({ address: secure, acceptedFingerprint: null }, credentials, never)
  await expect(stranger.identity()).rejects.toMatchObject({ code: 'connection.certificate-changed' })
  server.closeAllConnections()
  server.close()
})

test('a broken or wrongly typed answer is refused whole', async () => {
  strike('malformed')
  await expect(heron.inventory()).rejects.toMatchObject({ code: 'connection.unreadable-answer' })
  strike('wrong-types', 0)
  await expect(heron.inventory()).rejects.toMatchObject({ code: 'connection.unreadable-answer' })
  fleet.faults.clear()
})

test('a busy system is asked again when it said, an expired token is renewed', async () => {
  strike('unavailable', 2)
  strike('expired-token')
  await expect(heron.inventory()).resolves.toMatchObject({ identity: { name: 'heron' } })
})

test('a system that does not answer is given up, and the caller can stop waiting', async () => {
  const stop = new AbortController()
  strike('not-answering')
  const asked = redfishSystem({ address, acceptedFingerprint: null }, credentials, stop.signal).identity()
  setTimeout(() => stop.abort(new Error('stopped by the caller')), 100)
  await expect(asked).rejects.toThrow('stopped by the caller')
})

test('a pool, a volume, a mapping: only the mapped host sees it, and what it wrote reads back', async () => {
  const pool = await (await heron.of('pools')).create(await poolOf('fast', 0, 8), 'k1')
  expect(pool.task).not.toBeNull()
  expect(await (await heron.of('pools')).byKey('k1')).toEqual(pool)
  expect(await done(pool.task)).toBe('done')
  expect(await (await heron.of('pools')).at(pool.locator)).toMatchObject({
    isReady: true,
    usableBytes: 6n * 7_681_501_126_656n,
  })
  const volume = await (await heron.of('volumes')).create(
    { name: 'data-01', poolLocator: pool.locator, sizeBytes: 4n * 1024n ** 4n, isThin: true },
    'k2',
  )
  expect((await (await heron.of('volumes')).byKey('k2'))?.locator).toBe(volume.locator)
  const seen = await (await heron.of('volumes')).at(volume.locator)
  const naa = seen?.naa ?? ''
  const mapping = await (await heron.of('mappings')).make(
    volume.locator,
    'register',
    ['iqn.2019-04.example.marrowfield:register-1'],
    'k3',
  )
  expect(
    await (await heron.of('mappings')).make(
      volume.locator,
      'register',
      ['iqn.2019-04.example.marrowfield:register-1'],
      'k3',
    ),
  ).toEqual(mapping)

  const host = (name: string) => hostAgent(`http://127.0.0.1:${fleet.ports.hosts[name]}`, never)
  const [target = ''] = await (await heron.of('mappings')).targets()
  await host('register-1').login(target)
  await host('desk-1').login(target)
  expect(await host('desk-1').rescan()).toEqual([])
  expect(await host('register-1').rescan()).toEqual([
    expect.objectContaining({ naa, sizeBytes: 4n * 1024n ** 4n, lun: 0 }),
  ])
  const end = 4n * 1024n ** 4n - 1_048_576n
  const sent = await host('register-1').write(naa, end, 1_048_576, 'seed')
  expect(await host('register-1').read(naa, end, 1_048_576)).toBe(sent)
  expect(await host('register-1').read(naa, 0n, 4096)).not.toBe(sent)
  await expect(host('desk-1').read(naa, 0n, 4096)).rejects.toMatchObject({ code: 'host.refused' })
  expect((await heron.inventory()).volumes[0]).toMatchObject({ writtenBytes: 1_048_576n })
  await expect((await heron.of('volumes')).remove(volume.locator, naa)).rejects.toMatchObject({
    code: 'system.request-refused',
  })
  await (await heron.of('mappings')).remove(mapping.locator, { volumeLocator: volume.locator, groupName: 'register' })
  await expect(host('register-1').read(naa, 0n, 4096)).rejects.toMatchObject({ code: 'host.refused' })
  await (await heron.of('volumes')).remove(volume.locator, naa)
  await (await heron.of('volumes')).remove(volume.locator, naa)
})

test('drives in use are refused with the reason', async () => {
  await expect((await heron.of('pools')).create(await poolOf('second', 4, 8), 'k4')).rejects.toThrow(/in use/)
})

test('a task that fails says so with the reason', async () => {
  strike('task-fails')
  const pool = await (await heron.of('pools')).create(await poolOf('doomed', 8, 8), 'k5')
  expect(await done(pool.task)).toBe('failed')
  expect((await (await heron.of('tasks')).at(pool.task ?? '')).why).toContain('internal error')
  await (await heron.of('pools')).remove(pool.locator, 'doomed')
  expect((await drives()).filter(drive => drive.poolLocator === pool.locator)).toEqual([])
})

test('changes reach who listens', async () => {
  const stop = new AbortController()
  const heard = new Promise<void>(
    resolve => void heron.watch({ changed: () => resolve(), counted: () => undefined }, stop.signal),
  )
  await pause(100)
  const pool = await (await heron.of('pools')).create(await poolOf('heard', 16, 8), 'k6')
  await heard
  stop.abort()
  expect(await done(pool.task)).toBe('done')
})

test('what is asked of its volumes is told by itself, as a report has it', async () => {
  const stop = new AbortController()
  const endpoint = { address: `http://127.0.0.1:${fleet.ports.arrays['bittern']}`, acceptedFingerprint: null }
  const bittern = redfishSystem(endpoint, { userName: 'admin', password: 'bittern-demo' }, stop.signal)
  const counted = await new Promise<readonly { readonly locator: string; readonly at: number }[]>(
    resolve => void bittern.watch({ changed: () => undefined, counted: resolve }, stop.signal),
  )
  const at = counted[0]?.at ?? 0
  expect(Math.abs(at - fleet.clock.now())).toBeLessThan(86_400_000)
  const asked = await (await bittern.of('metrics')).countersSince(new Date(at), new Date(fleet.clock.now()))
  stop.abort()
  const places = (all: readonly { readonly locator: string }[]) => [...new Set(all.map(({ locator }) => locator))]
  expect(places(counted)).toEqual(places(asked))
})

test('a drive that fails is stated, and a spare takes its place and is rebuilt at what drives can write', async () => {
  const all = (await drives()).slice(8, 16)
  const wanted = {
    name: 'spared',
    scheme: { kind: 'parity' as const, parityDrives: 2 },
    groups: [all.slice(1).map(drive => drive.locator)],
    spares: [all[0]?.locator ?? ''],
    snapshotReserveRatio: 0,
  }
  const pool = await (await heron.of('pools')).create(wanted, 'k8')
  expect(await done(pool.task)).toBe('done')
  const [array] = fleet.arrays
  if (array === undefined) throw new Error('heron is not there')
  failDrive(array, '1', all[1]?.bay ?? 0)
  const after = await drives()
  expect(after.find(drive => drive.serial === all[1]?.serial)).toMatchObject({ state: 'failed', poolLocator: null })
  expect(after.find(drive => drive.serial === all[0]?.serial)).toMatchObject({
    role: 'data',
    poolLocator: pool.locator,
  })
  failDrive(array, '1', all[2]?.bay ?? 0)
  expect((await heron.inventory()).pools.find(each => each.name === 'spared')).toMatchObject({ state: 'degraded' })
  await expect(
    (await heron.of('pools')).create(
      {
        ...wanted,
        name: 'again',
        groups: [[all[1]?.locator ?? '', ...all.slice(4, 6).map(drive => drive.locator)]],
        spares: [],
      },
      'k9',
    ),
  ).rejects.toThrow(/failed|in use/)
  await (await heron.of('pools')).remove(pool.locator, 'spared')
})

test('the fleet comes back as it was, and its half-done work goes on', async () => {
  fleet.clock.setRate(1)
  const pool = await (await heron.of('pools')).create(await poolOf('interrupted', 12, 4), 'k7')
  await fleet.stop()
  fleet = await startFleet(folder, fleet.ports, 1)
  expect(await (await heron.of('pools')).at(pool.locator)).toMatchObject({ name: 'interrupted', isReady: false })
  fleet.clock.setRate(36_000)
  expect(await done((await (await heron.of('pools')).byKey('k7'))?.task ?? null)).toBe('done')
})
