import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { reverseName } from '@/core/network'
import { clustering } from '.'
import { network, nodes, pass, poolOf, rowAt } from './testing/rowAt'

let folder: string
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'row-'))))
afterEach(() => rmSync(folder, { recursive: true, force: true }))
const opened = () => rowAt(folder)

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
