import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { blockVolumes, SimulatedArray, work } from '../array'
import { godwit } from '../demo/models'
import { seedRow } from '../demo/seedRow'
import { Faults, FleetClock, Store } from '../fleet'
import { reverseName } from '@/core/network'
import { NameServer } from '../names/NameServer'
import { clustering, ClusterPools, PieceStore, RawDrives, rowView, SimulatedRow } from '.'

let folder: string
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'row-'))))
afterEach(() => rmSync(folder, { recursive: true, force: true }))

/** The row as a process finds it on its disk; called again it is what a killed and restarted process would see. */
function opened() {
  const store = new Store(folder)
  const clock = new FleetClock(store, 0)
  const pieces = new PieceStore(join(folder, 'cluster'))
  const array = new SimulatedArray(godwit, store, clock, new Faults(), pieces)
  const row = new SimulatedRow(array, id => `http://agents/${id}`)
  pieces.serve(row)
  const raw = new RawDrives(join(folder, 'sectors'))
  const names = new NameServer(store)
  if (store.count('godwit/drives') === 0) seedRow(array, row, raw, names)
  return {
    store,
    clock,
    array,
    row,
    raw,
    names,
    pieces,
    pools: new ClusterPools(row, pieces, raw, join(folder, 'cluster')),
    view: rowView(row, pieces),
  }
}
type Fleet = ReturnType<typeof opened>

const nodes = ['godwit-1', 'godwit-2', 'godwit-3', 'godwit-4']
const pass = ({ clock, array, pools }: Fleet, seconds: number) => {
  clock.step(seconds)
  work(array, seconds)
  pools.tick()
}
function network(fleet: Fleet, ids: readonly string[] = nodes) {
  fleet.row.setSwitchPort('switch-1.3', { mtu: 9216 })
  ids.forEach((id, index) =>
    fleet.row.setInterface(`${id}.1`, {
      mtu: 9000,
      storage: {
        family: 'IPv4',
        address: `10.20.30.${11 + index}`,
        prefixLength: 24,
        origin: 'static',
        isReserved: false,
        vlan: 30,
      },
    }),
  )
}
function form(fleet: Fleet, ids: readonly string[] = nodes) {
  network(fleet, ids)
  ids.forEach(id => fleet.row.setRestartService(id, false))
  clustering.formCluster(fleet.row, 'kiln', '', ids)
  pass(fleet, 120)
}
const banksOf = (ids: readonly string[], bays = [1, 2, 3, 4]) =>
  ids.map(id => ({ nodeId: id, number: 1, cache: `${id}-9`, capacity: bays.map(bay => `${id}-${bay}`) }))
function poolOf(
  fleet: Fleet,
  scheme: Parameters<ClusterPools['createPool']>[0]['scheme'],
  ids: readonly string[] = nodes,
) {
  form(fleet, ids)
  const task = fleet.pools.createPool({
    name: 'kiln-01',
    description: '',
    scheme,
    domain: 'node',
    banks: banksOf(ids),
    keepsReserve: true,
    snapshotReserveRatio: 0,
  })
  pass(fleet, 3600)
  const pool = fleet.array.one('pools', task.subjectId)
  const { volume } = blockVolumes.createVolume(fleet.array, {
    name: 'scans',
    description: '',
    poolId: pool.id,
    sizeBytes: 1n << 40n,
    isThin: true,
  })
  return { pool, volume }
}
const bytes = (seed: number, length: number) =>
  Buffer.from(Uint8Array.from({ length }, (_, index) => (index * 31 + seed * 17 + (index >> 8)) & 255))
const written = (fleet: Fleet, volumeId: string, extents = 12) => {
  const data = bytes(3, extents * 1_048_576)
  fleet.pieces.write(volumeId, 5n * 1_048_576n, data)
  return () => expect(fleet.pieces.read(volumeId, 5n * 1_048_576n, data.length).equals(data)).toBe(true)
}

test('a packet passes whole only where every port lets it, in the same VLAN, between nodes that are up', () => {
  const fleet = opened()
  fleet.row.setSwitchPort('switch-1.4', { vlans: [1] })
  network(fleet, nodes.slice(0, 2))
  expect(fleet.row.passes('godwit-1', '10.20.30.12', 9000)).toBe(9000)
  fleet.row.setSwitchPort('switch-1.2', { mtu: 1500 })
  expect(fleet.row.passes('godwit-1', '10.20.30.12', 9000)).toBe(1500)
  fleet.row.setSwitchPort('switch-1.2', { vlans: [1, 20] })
  expect(fleet.row.passes('godwit-1', '10.20.30.12', 9000)).toBeNull()
  fleet.row.setSwitchPort('switch-1.2', { vlans: [30], mtu: 9216 })
  fleet.row.setPower('godwit-2', false)
  expect(fleet.row.passes('godwit-1', '10.20.30.12', 9000)).toBeNull()
  fleet.row.setPower('godwit-2', true)
  fleet.row.setInterface('godwit-3.1', {
    mtu: 9000,
    storage: {
      family: 'IPv4',
      address: '10.20.30.12',
      prefixLength: 24,
      origin: 'static',
      isReserved: false,
      vlan: 30,
    },
  })
  expect(fleet.row.passes('godwit-1', '10.20.30.12', 9000)).toBeNull()
})

test('a restart service that was left on restarts a node whose storage network moves', () => {
  const fleet = opened()
  network(fleet)
  const isUp = () => fleet.row.isAnswering(fleet.row.one('nodes', 'godwit-1'))
  expect(isUp()).toBe(true)
  fleet.row.setInterface('godwit-1.1', { mtu: 4000 })
  expect(isUp()).toBe(false)
  pass(fleet, 200)
  expect(isUp()).toBe(true)
})

test('a cluster is refused where nodes do not reach each other, and where a clock is off', () => {
  const fleet = opened()
  network(fleet)
  fleet.row.setSwitchPort('switch-1.2', { mtu: 1500 })
  expect(() => clustering.formCluster(fleet.row, 'kiln', '', nodes)).toThrow(/does not reach/)
  fleet.row.setSwitchPort('switch-1.2', { mtu: 9216 })
  fleet.row.skewClock('godwit-4', 360)
  expect(() => clustering.formCluster(fleet.row, 'kiln', '', nodes)).toThrow(/clock of godwit-4/)
  fleet.row.followTime('godwit-4')
  expect(clustering.formCluster(fleet.row, 'kiln', '', nodes).state).toBe('Running')
  expect(fleet.row.one('clusters', '1').isReady).toBe(false)
})

test('a node that dies while the cluster forms ends the task, and nothing is half formed after it is dissolved', () => {
  const fleet = opened()
  network(fleet)
  nodes.forEach(id => fleet.row.setRestartService(id, false))
  clustering.formCluster(fleet.row, 'kiln', '', nodes)
  fleet.row.setPower('godwit-3', false)
  pass(fleet, 10)
  expect(fleet.array.all('tasks').at(-1)).toMatchObject({ state: 'Exception', message: 'godwit-3 does not answer.' })
  clustering.dissolve(fleet.row)
  expect(fleet.row.all('clusters')).toEqual([])
})

test.each([
  ['2+1', { kind: 'erasure', dataPieces: 2, parityPieces: 1 } as const],
  ['2+2', { kind: 'erasure', dataPieces: 2, parityPieces: 2 } as const],
  ['3 copies', { kind: 'copies', copies: 3 } as const],
])('%s: what was written reads the same after losing a drive and then a node, and after a restart', (_, scheme) => {
  const first = opened()
  const { volume, pool } = poolOf(first, scheme)
  const check = written(first, volume.id)
  check()
  first.pools.faults.fail('godwit-2', 3)
  check()
  pass(first, 1)
  pass(first, 50_000)
  expect(first.view.poolHealth(pool)).toBe('OK')
  first.row.setPower('godwit-4', false)
  check()
  // Written while a node is away: other domains take its part.
  if (scheme.kind !== 'erasure' || scheme.parityPieces === 1) {
    first.pieces.write(volume.id, 900n * 1_048_576n, bytes(9, 4096))
    expect(first.pieces.read(volume.id, 900n * 1_048_576n, 4096).equals(bytes(9, 4096))).toBe(true)
  }
  pass(first, 700)
  pass(first, 700)
  pass(first, 50_000)
  check()
  const again = opened()
  expect(
    again.pieces.read(volume.id, 5n * 1_048_576n, 1_048_576).equals(bytes(3, 12 * 1_048_576).subarray(0, 1_048_576)),
  ).toBe(true)
})

test('one loss too many refuses the bytes and says how much is lost; a node that comes back restores them', () => {
  const fleet = opened()
  const { volume, pool } = poolOf(fleet, { kind: 'erasure', dataPieces: 3, parityPieces: 1 })
  const check = written(fleet, volume.id)
  fleet.row.setPower('godwit-1', false)
  check()
  fleet.row.setPower('godwit-2', false)
  expect(() => fleet.pieces.read(volume.id, 5n * 1_048_576n, 4096)).toThrow(
    /2 pieces of that stripe are left, and it takes 3/,
  )
  expect(fleet.view.poolHealth(pool)).toBe('Critical')
  expect(fleet.view.lostBytes(fleet.array.one('volumes', volume.id))).toBe(12n * 1_048_576n)
  expect(() => fleet.pieces.write(volume.id, 5n * 1_048_576n, bytes(1, 4096))).toThrow()
  fleet.row.setPower('godwit-2', true)
  check()
  expect(fleet.view.lostBytes(fleet.array.one('volumes', volume.id))).toBe(0n)
})

test('pieces that a node holds from before it went are never taken for newer ones', () => {
  const fleet = opened()
  const { volume } = poolOf(fleet, { kind: 'copies', copies: 3 }, nodes)
  fleet.pieces.write(volume.id, 0n, bytes(1, 1_048_576))
  const table = fleet.pieces.tables.of(fleet.array.one('volumes', volume.id).poolId)
  expect(table.length).toBe(4096)
  fleet.row.setPower('godwit-1', false)
  fleet.pieces.write(volume.id, 0n, bytes(2, 1_048_576))
  fleet.row.setPower('godwit-1', true)
  expect(fleet.pieces.read(volume.id, 0n, 1_048_576).equals(bytes(2, 1_048_576))).toBe(true)
})

test('losing a cache drive loses its bank; the other pieces are read and made anew elsewhere', () => {
  const fleet = opened()
  const { volume, pool } = poolOf(fleet, { kind: 'copies', copies: 2 })
  const check = written(fleet, volume.id)
  fleet.pools.faults.fail('godwit-3', 9)
  expect(fleet.row.lostDrives(fleet.array.one('pools', pool.id)).map(drive => drive.id)).toEqual(
    [1, 2, 3, 4].map(bay => `godwit-3-${bay}`),
  )
  check()
  pass(fleet, 1)
  pass(fleet, 50_000)
  check()
  expect(fleet.view.poolHealth(fleet.array.one('pools', pool.id))).toBe('OK')
})

test('a rebuild takes as long as its bytes at the rates of what is left', () => {
  const fleet = opened()
  const { volume } = poolOf(fleet, { kind: 'erasure', dataPieces: 2, parityPieces: 1 })
  fleet.array.store.commit([
    fleet.array.entry('volumes', { ...fleet.array.one('volumes', volume.id), workloadBytes: `${8n * 10n ** 12n}` }),
  ])
  fleet.pools.faults.fail('godwit-2', 3)
  pass(fleet, 1)
  const task = () => fleet.array.all('tasks').findLast(each => each.work === 'rebuild-pieces')
  const whole = task()?.lanes.reduce((longest, lane) => Math.max(longest, lane.bytes / lane.bytesPerSecond), 0) ?? 0
  // About 12 TB of pieces over 16 drives: 0.75 TB, each byte read twice and written once, over 15 disks at half of 172 MB/s.
  const guess = (0.75e12 * 3) / (15 * 0.172e9 * 0.5)
  expect(whole / guess).toBeGreaterThan(0.9)
  expect(whole / guess).toBeLessThan(1.6)
  pass(fleet, whole / 2)
  expect(task()?.state).toBe('Running')
  pass(fleet, whole / 2 + 10)
  expect(task()?.state).toBe('Completed')
})

test('added drives take about their share and no more; drives that leave give theirs away first', () => {
  const fleet = opened()
  const { volume, pool } = poolOf(fleet, { kind: 'copies', copies: 2 })
  const check = written(fleet, volume.id)
  const count = () =>
    fleet.pieces.tables
      .of(pool.id)
      .flat()
      .filter(id => id === 'godwit-1-5').length
  const before = JSON.parse(JSON.stringify(fleet.pieces.tables.of(pool.id))) as (string | null)[][]
  const bank = { nodeId: 'godwit-1', number: 1, cache: 'godwit-1-9', capacity: ['godwit-1-5'] }
  const usable = BigInt(pool.usableBytes)
  fleet.pools.addDrives(pool.id, [bank], 0.5)
  pass(fleet, 50_000)
  const share = (4096 * 2) / 17
  const moved = fleet.pieces.tables
    .of(pool.id)
    .flatMap((places, set) => places.filter((drive, index) => drive !== before[set]?.[index])).length
  expect(count() / share).toBeGreaterThan(0.75)
  expect(moved / share).toBeLessThan(1.5)
  expect(BigInt(fleet.array.one('pools', pool.id).usableBytes)).toBeGreaterThan(usable)
  check()
  fleet.pools.removeDrives(pool.id, ['godwit-1-5'], 0.5)
  pass(fleet, 50_000)
  expect(count()).toBe(0)
  expect(fleet.array.one('drives', 'godwit-1-5')).toMatchObject({ role: 'unassigned', poolId: null })
  check()
})

test('a node joins with its bank and leaves again; its drives are free then', () => {
  const fleet = opened()
  const { volume, pool } = poolOf(fleet, { kind: 'erasure', dataPieces: 2, parityPieces: 1 })
  const check = written(fleet, volume.id)
  fleet.row.setInterface('godwit-5.1', {
    mtu: 9000,
    storage: {
      family: 'IPv4',
      address: '10.20.30.15',
      prefixLength: 24,
      origin: 'static',
      isReserved: false,
      vlan: 30,
    },
  })
  fleet.row.setRestartService('godwit-5', false)
  clustering.setMembers(fleet.row, [...nodes, 'godwit-5'])
  fleet.pools.addDrives(pool.id, banksOf(['godwit-5']), 0.5)
  pass(fleet, 50_000)
  check()
  expect(() => clustering.setMembers(fleet.row, nodes)).toThrow(/still serves a pool/)
  fleet.pools.removeDrives(pool.id, ['godwit-5-9', ...[1, 2, 3, 4].map(bay => `godwit-5-${bay}`)], 0.5)
  pass(fleet, 50_000)
  clustering.setMembers(fleet.row, nodes)
  check()
  expect(fleet.array.all('drives').filter(drive => drive.enclosureId === 'godwit-5' && drive.poolId !== null)).toEqual(
    [],
  )
})

test('what earlier use left is really there, and gone after erasing; boot drives and drives in use are refused', () => {
  const fleet = opened()
  const drive = fleet.array.one('drives', 'godwit-3-5')
  expect(fleet.raw.read(drive, 0, 512).some(byte => byte !== 0)).toBe(true)
  fleet.pools.eraseDrive(drive.id, false)
  pass(fleet, 60)
  expect(fleet.raw.read(drive, 0, 512).some(byte => byte !== 0)).toBe(false)
  expect(fleet.array.one('drives', drive.id).leftOver).toBeNull()
  expect(() => fleet.pools.eraseDrive('godwit-1-11', false)).toThrow(/starts from it/)
  const { pool } = poolOf(fleet, { kind: 'copies', copies: 2 })
  expect(() => fleet.pools.eraseDrive(pool.groups[0]?.[0] ?? '', true)).toThrow(/A pool uses it/)
})

test('a drive pulled during erasing ends the task with its reason', () => {
  const fleet = opened()
  const task = fleet.pools.eraseDrive('godwit-3-5', true)
  pass(fleet, 10)
  fleet.pools.faults.setPulled('godwit-3', 5, true)
  pass(fleet, 10)
  expect(fleet.array.one('tasks', task.id)).toMatchObject({
    state: 'Exception',
    message: 'The drive is no longer there.',
  })
})

test('names lead to addresses and back, of either family', () => {
  const { names } = opened()
  const ask = (name: string, type: 'A' | 'AAAA' | 'PTR') =>
    names.answer({ type: 'query', id: 1, questions: [{ type, name }] })
  expect(ask('GODWIT-2.kilnhill.marrowfield.example', 'A').answers).toMatchObject([{ data: '10.20.30.12' }])
  expect(ask('12.30.20.10.in-addr.arpa', 'PTR').answers).toMatchObject([
    { data: 'godwit-2.kilnhill.marrowfield.example' },
  ])
  names.setForward('v6.marrowfield.example', 'fd00::12')
  expect(ask('v6.marrowfield.example', 'AAAA').answers).toMatchObject([{ data: 'fd00::12' }])
  expect(ask('v6.marrowfield.example', 'A').answers).toEqual([])
  expect(reverseName('2001:db8::1')).toBe('1.0.0.0.0.0.0.0.0.0.0.0.0.0.0.0.0.0.0.0.0.0.0.0.8.b.d.0.1.0.0.2.ip6.arpa')
})
