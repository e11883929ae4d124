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

/** What the volumes of a pool hold (bytes). */
const writtenIn = (array: SimulatedRow['array'], pool: PoolEntity) =>
  array
    .all('volumes')
    .filter(volume => volume.poolId === pool.id)
    .reduce((sum, volume) => sum + Number(BigInt(volume.workloadBytes) + BigInt(volume.storedExtents) * extentBytes), 0)

/** What each drive and each node's link has to carry, and at what rate it may. */
export function lanesOf(
  row: SimulatedRow,
  table: StripeTable,
  pool: PoolEntity,
  moves: readonly Move[],
  isRebuild: boolean,
) {
  const { array } = row
  const needed = neededOf(schemeOf(pool))
  const share = pool.spread?.rateShare ?? 0.5
  const drives = new Map(array.all('drives').map(drive => [drive.id, drive]))
  const pieceBytes = writtenIn(array, pool) / stripeSetCount / needed
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
      // What cannot be read any more is made anew from the pieces that are left.
      const others = wanted.filter(id => id !== null && id !== drive && old.includes(id)).slice(0, needed)
      const sources = isRebuild || source === undefined || !row.isReadable(source) ? others : [source.id]
      sources.forEach(id => carry(id ?? '', true))
      carry(drive, true)
    })
  }
  const ports = row.all('nodePorts').filter(port => port.storage !== null)
  const linkOf = (nodeId: string) => ports.find(port => port.nodeId === nodeId)
  const lane = (each: number, rate: number | undefined) => ({
    bytes: each,
    bytesPerSecond: (rate ?? unknownRate) * share,
  })
  const lanes = [
    ...[...onDrive].map(([id, each]) => lane(each, drives.get(id)?.bytesPerSecond)),
    ...[...onNode].map(([id, each]) => lane(each, rateOf(linkOf(id)))),
  ]
  return { lanes: lanes.filter(({ bytes: carried }) => carried > 0), bytes }
}

/** Of what has gone meanwhile (bytes a second). */
const unknownRate = 1e8
const rateOf = (port: Parameters<typeof linkRate>[0] | undefined) => (port === undefined ? undefined : linkRate(port))
