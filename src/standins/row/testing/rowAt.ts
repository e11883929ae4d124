import { join } from 'node:path'
import { blockVolumes, SimulatedArray, work } from '../../array'
import { godwit } from '../../demo/models'
import { seedRow } from '../../demo/seedRow'
import { Faults, FleetClock, Store } from '../../fleet'
import { NameServer } from '../../names/NameServer'
import { clustering, ClusterPools, PieceStore, RawDrives, rowView, SimulatedRow } from '..'

/** The row as a process finds it on its disk; called again it is what a killed and restarted process would see. */
export function rowAt(folder: string) {
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
export type RowFleet = ReturnType<typeof rowAt>

export const nodes = ['godwit-1', 'godwit-2', 'godwit-3', 'godwit-4']
export const pass = ({ clock, array, pools }: RowFleet, seconds: number) => {
  clock.step(seconds)
  work(array, seconds)
  pools.tick()
}
export function network(fleet: RowFleet, ids: readonly string[] = nodes) {
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
function form(fleet: RowFleet, ids: readonly string[] = nodes) {
  network(fleet, ids)
  ids.forEach(id => fleet.row.setRestartService(id, false))
  clustering.formCluster(fleet.row, 'kiln', '', ids)
  pass(fleet, 120)
}
export const banksOf = (ids: readonly string[], bays = [1, 2, 3, 4]) =>
  ids.map(id => ({ nodeId: id, number: 1, cache: `${id}-9`, capacity: bays.map(bay => `${id}-${bay}`) }))
export function poolOf(
  fleet: RowFleet,
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
export const bytes = (seed: number, length: number) =>
  Buffer.from(Uint8Array.from({ length }, (_, index) => (index * 31 + seed * 17 + (index >> 8)) & 255))
export const written = (fleet: RowFleet, volumeId: string, extents = 12) => {
  const data = bytes(3, extents * 1_048_576)
  fleet.pieces.write(volumeId, 5n * 1_048_576n, data)
  return () => expect(fleet.pieces.read(volumeId, 5n * 1_048_576n, data.length).equals(data)).toBe(true)
}
