import { stripeSetCount } from '@/core/clusters'
import { extentBytes, type PoolEntity } from '../array'
import { neededOf, schemeOf } from './pieces'
import type { SimulatedRow } from './SimulatedRow'
import { linkRate } from './Wires'
import type { StripeTable } from './StripeTables'

/** Where the pieces of a stripe set shall stand. */
export interface Move {
  readonly set: number
  readonly row: (string | null)[]
}

/** What each drive and each node's link has to carry, and at what rate it may. */
export function lanesOf(
  row: SimulatedRow,
  table: StripeTable,
  pool: PoolEntity,
  moves: readonly Move[],
  isRebuild: boolean,
) {
  const { array } = row
  const scheme = schemeOf(pool)
  const share = pool.spread?.rateShare ?? 0.5
  const drives = new Map(array.all('drives').map(drive => [drive.id, drive]))
  const written = array
    .all('volumes')
    .filter(volume => volume.poolId === pool.id)
    .reduce((sum, volume) => sum + Number(BigInt(volume.workloadBytes) + BigInt(volume.storedExtents) * extentBytes), 0)
  const pieceBytes = written / stripeSetCount / neededOf(scheme)
  const onDrive = new Map<string, number>()
  const onNode = new Map<string, number>()
  const carry = (id: string, crosses: boolean) => {
    onDrive.set(id, (onDrive.get(id) ?? 0) + pieceBytes)
    const node = drives.get(id)?.enclosureId ?? ''
    if (crosses) onNode.set(node, (onNode.get(node) ?? 0) + pieceBytes)
  }
  let bytes = 0
  for (const { set, row: wanted } of moves) {
    const old = table[set] ?? []
    wanted.forEach((drive, index) => {
      const was = old[index] ?? null
      if (drive === null || drive === was) return
      bytes += pieceBytes
      const source = drives.get(was ?? '')
      const sources =
        isRebuild || source === undefined || !row.isReadable(source)
          ? wanted
              .filter((id): id is string => id !== null && id !== drive && old.includes(id))
              .slice(0, neededOf(scheme))
          : [source.id]
      sources.forEach(id => carry(id, true))
      carry(drive, true)
    })
  }
  const ports = row.all('nodePorts').filter(port => port.storage !== null)
  const lanes = [
    ...[...onDrive].map(([id, each]) => ({
      bytes: each,
      bytesPerSecond: (drives.get(id)?.bytesPerSecond ?? 1e8) * share,
    })),
    ...[...onNode].map(([id, each]) => {
      const port = ports.find(candidate => candidate.nodeId === id)
      return { bytes: each, bytesPerSecond: (port === undefined ? 1e8 : linkRate(port)) * share }
    }),
  ]
  return { lanes: lanes.filter(lane => lane.bytes > 0), bytes }
}
