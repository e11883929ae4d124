import { layGroups } from '../array/layGroups'
import type { DriveEntity, PoolEntity, VolumeEntity } from '../array'
import { hostAccess, type SimulatedArray } from '../array'
import { seededHex, seededNumber } from '../fleet'
import { shareOf } from '@/core/layout'

export interface DriveKind {
  readonly media: 'HDD' | 'SSD'
  readonly protocol: 'NVMe' | 'SAS'
  readonly writesPerDay?: number
  readonly bytes: bigint
  readonly model: string
  readonly bytesPerSecond: number
}
const nvme: DriveKind = {
  media: 'SSD',
  protocol: 'NVMe',
  bytes: 7_681_501_126_656n,
  model: 'TT-N7680',
  bytesPerSecond: 1.86e9,
}
const ssd: DriveKind = {
  media: 'SSD',
  protocol: 'SAS',
  bytes: 1_920_383_410_176n,
  model: 'FW-S1920',
  bytesPerSecond: 0.83e9,
}
const hdd: DriveKind = {
  media: 'HDD',
  protocol: 'SAS',
  bytes: 12_000_138_625_024n,
  model: 'FW-H12',
  bytesPerSecond: 0.168e9,
}

export function drive(array: SimulatedArray, kind: DriveKind, enclosureId: string, bay: number): DriveEntity {
  const place = `${array.model.name}/${enclosureId}/${bay}`
  return {
    id: `${enclosureId}-${bay}`,
    enclosureId,
    bay,
    media: kind.media,
    protocol: kind.protocol,
    formFactor: kind.media === 'HDD' ? 'Drive3_5' : 'Drive2_5',
    rotationSpeedRpm: kind.media === 'HDD' ? 7200 : null,
    capacityBytes: `${kind.bytes}`,
    model: kind.model,
    serial: seededHex('serial', place, 12).toUpperCase(),
    wwn: `5${seededHex('wwn', place, 15)}`,
    firmware: kind.media === 'HDD' ? 'H7A2' : 'N3C1',
    // No two drives are quite alike: within 4% of their kind.
    bytesPerSecond: kind.bytesPerSecond * (0.96 + seededNumber('rate', place, 0, 80) / 1000),
    hoursAtStart: seededNumber('hours', place, 200, 31_000),
    lifeLeftPercent: kind.media === 'SSD' ? seededNumber('wear', place, 71, 99) : null,
    isFailed: false,
    isPulled: false,
    isBoot: false,
    isLit: false,
    writesPerDay: kind.writesPerDay ?? (kind.media === 'SSD' ? 1 : null),
    leftOver: null,
    poolId: null,
    groupIndex: null,
    role: 'unassigned',
  }
}

/** Who has been using bittern for years: group, initiator, volumes. */
const inUse: readonly (readonly [string, string, readonly string[]])[] = [
  [
    'ct-scans',
    'iqn.2019-04.example.marrowfield:scanner-gate',
    ['ct-scans-raw-01', 'ct-scans-raw-02', 'ct-scans-derived-01'],
  ],
  ['ticket-desk', 'iqn.2019-04.example.marrowfield:tickets', ['ticket-desk-01']],
  ['reading-room', 'iqn.2019-04.example.marrowfield:desk-1', ['reading-room-image-01']],
]

const bays = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, index) => from + index)
const gibibyte = 1024n ** 3n

/** heron: twenty-four NVMe drives that nothing uses yet. */
export function seedHeron(array: SimulatedArray): void {
  array.store.commit(bays(1, 24).map(bay => array.entry('drives', drive(array, nvme, '1', bay))))
}

/** bittern: four shelves of disks in one pool that is nearly full, and eight SSDs in its head, two of them free. */
export function seedBittern(array: SimulatedArray): void {
  const disks = ['1', '2', '3', '4'].flatMap(shelf => bays(1, 12).map(bay => drive(array, hdd, shelf, bay)))
  const flash = bays(1, 8).map(bay => drive(array, ssd, '0', bay))
  const groups = bays(0, 3).map(index => disks.slice(index * 11, index * 11 + 11).map(each => each.id))
  const spares = disks.slice(44, 46).map(each => each.id)
  const bulk = pool('bittern-bulk-01', 'RAID6', groups, spares, hdd.bytes, 46n)
  const fast = pool('bittern-fast-01', 'RAID1', [flash.slice(0, 6).map(each => each.id)], [], ssd.bytes, 6n)
  const placed = [...disks, ...flash].map(each => {
    const owner = [bulk, fast].find(
      candidate => candidate.groups.flat().includes(each.id) || candidate.spares.includes(each.id),
    )
    if (owner === undefined) return each
    const groupIndex = owner.groups.findIndex(group => group.includes(each.id))
    return {
      ...each,
      poolId: owner.id,
      groupIndex: groupIndex < 0 ? null : groupIndex,
      role: groupIndex < 0 ? ('spare' as const) : ('data' as const),
    }
  })
  const volumes = [
    volume(array, bulk, 'ct-scans-raw-01', 120_000n, 96_400n, 0.0004),
    volume(array, bulk, 'ct-scans-raw-02', 120_000n, 101_250n, 0.0021),
    volume(array, bulk, 'ct-scans-derived-01', 60_000n, 51_700n, 0.011),
    volume(array, bulk, 'staff-homes-01', 40_000n, 28_900n, 0.006),
    volume(array, bulk, 'photo-studio-01', 80_000n, 63_100n, 0.003),
    volume(array, bulk, 'field-recordings-01', 30_000n, 11_300n, 0.0012),
    volume(array, fast, 'ticket-desk-01', 400n, 212n, 0.09),
    volume(array, fast, 'building-sensors-01', 250n, 84n, 0.02),
    volume(array, fast, 'reading-room-image-01', 1_200n, 640n, 0.004),
  ]
  array.store.commit([
    ...placed.map(each => array.entry('drives', each)),
    array.entry('pools', bulk),
    array.entry('pools', fast),
    ...volumes.map(each => array.entry('volumes', each)),
  ])
  for (const [group, initiator, names] of inUse) {
    const endpoint = hostAccess.addEndpoint(array, initiator)
    const { id } = hostAccess.addGroup(array, group, '', [endpoint.id])
    for (const name of names) hostAccess.connect(array, id, name, '')
  }
}

function pool(
  name: string,
  raidType: PoolEntity['raidType'],
  groups: PoolEntity['groups'],
  spares: readonly string[],
  driveBytes: bigint,
  drives: bigint,
): PoolEntity {
  const { usableBytes } = layGroups(
    groups.map(group => group.map(() => driveBytes)),
    raidType,
  )
  const metadataBytes = shareOf(driveBytes * drives, 0.0075)
  return {
    id: name,
    name,
    description: '',
    raidType,
    groups,
    spares,
    isReady: true,
    rawBytes: `${driveBytes * drives}`,
    usableBytes: `${usableBytes}`,
    metadataBytes: `${metadataBytes}`,
    snapshotReserveBytes: `${shareOf(usableBytes - metadataBytes, 0.05)}`,
    spread: null,
  }
}

function volume(
  array: SimulatedArray,
  owner: PoolEntity,
  name: string,
  sizeGibibytes: bigint,
  writtenGibibytes: bigint,
  /** Of what is written, overwritten in a day. */
  changedRatio: number,
): VolumeEntity {
  return {
    id: name,
    poolId: owner.id,
    name,
    description: '',
    isThin: true,
    storedExtents: 0,
    isReady: true,
    naa: `6${seededHex(array.model.serial, 'naa', 15)}${seededHex(array.model.serial, name, 16)}`,
    sizeBytes: `${sizeGibibytes * gibibyte}`,
    workloadBytes: `${writtenGibibytes * gibibyte}`,
    changedBytesPerDay: `${Math.round(Number(writtenGibibytes * gibibyte) * changedRatio)}`,
  }
}
