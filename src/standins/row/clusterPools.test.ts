import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { clustering } from '.'
import { banksOf, bytes, nodes, pass, poolOf, rowAt, written } from './testing/rowAt'

let folder: string
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'row-'))))
afterEach(() => rmSync(folder, { recursive: true, force: true }))
const opened = () => rowAt(folder)

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
