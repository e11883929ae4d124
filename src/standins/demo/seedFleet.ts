import { layGroups } from '../array/layGroups'
import type { DriveEntity, LoadCourse, PoolEntity, UsageCourse, VolumeEntity } from '../array'
import { hostAccess, seedLoads, seedUsage, type SimulatedArray } from '../array'
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

const course =
  (isWeekly: boolean) =>
  (gibibytesPerDay: number, steps: UsageCourse['steps'] = []) => ({
    bytesPerDay: gibibytesPerDay * Number(gibibyte),
    isWeekly,
    steps,
  })
/** What people make, they make on weekdays; instruments know no weekend. */
const [weekly, steady] = [course(true), course(false)]

const load = (
  requestsPerSecond: number,
  readShare: number,
  kibibytes: number,
  cacheHit: number,
  shape: LoadCourse['shape'],
  peaks: LoadCourse['peaks'] = [],
): LoadCourse => ({ requestsPerSecond, readShare, bytesEach: kibibytes * 1024, cacheHit, shape, peaks })

/** What each workload asks: on Monday mornings all that was scanned is derived anew, and everybody else on the shelves waits. */
const loads: Readonly<Partial<Record<string, LoadCourse>>> = {
  'ct-scans-raw-01': load(60, 0.95, 256, 0.35, 'office'),
  'ct-scans-raw-02': load(190, 0.35, 256, 0.4, 'office'),
  'ct-scans-derived-01': load(240, 0.6, 64, 0.45, 'office', [{ weekday: 0, fromHour: 8, toHour: 11.5, factor: 5.5 }]),
  'staff-homes-01': load(420, 0.7, 16, 0.72, 'office'),
  'photo-studio-01': load(150, 0.55, 128, 0.5, 'office'),
  'field-recordings-01': load(30, 0.2, 64, 0.3, 'steady'),
  'ticket-desk-01': load(700, 0.8, 8, 0.9, 'office'),
  'building-sensors-01': load(90, 0.05, 4, 0.5, 'steady'),
  'reading-room-image-01': load(300, 0.97, 16, 0.85, 'office'),
}

/** heron and curlew: twenty-four NVMe drives that nothing uses yet. */
export function seedAllFlash(array: SimulatedArray): void {
  array.store.commit(bays(1, 24).map(bay => array.entry('drives', drive(array, nvme, '1', bay))))
}

/** A drive with its place in the pool whose groups or spares name it. */
function placedIn(pools: readonly PoolEntity[], each: DriveEntity): DriveEntity {
  const owner = pools.find(candidate => candidate.groups.flat().includes(each.id) || candidate.spares.includes(each.id))
  if (owner === undefined) return each
  const groupIndex = owner.groups.findIndex(group => group.includes(each.id))
  return {
    ...each,
    poolId: owner.id,
    groupIndex: groupIndex < 0 ? null : groupIndex,
    role: groupIndex < 0 ? ('spare' as const) : ('data' as const),
  }
}

/** One disk on the third shelf has begun to read some of its sectors twice, more of them from day to day. */
const erring = (array: SimulatedArray, each: DriveEntity): DriveEntity =>
  each.enclosureId === '3' && each.bay === 7
    ? { ...each, errors: { since: array.clock.now() - 32 * 86_400_000, perDay: 1.6, doublingDays: 7 } }
    : each

/** bittern: four shelves of disks in one pool that is nearly full, and eight SSDs in its head, two of them free. */
export function seedBittern(array: SimulatedArray): void {
  const disks = ['1', '2', '3', '4'].flatMap(shelf => bays(1, 12).map(bay => drive(array, hdd, shelf, bay)))
  const flash = bays(1, 8).map(bay => drive(array, ssd, '0', bay))
  const groups = bays(0, 3).map(index => disks.slice(index * 11, index * 11 + 11).map(each => each.id))
  const spares = disks.slice(44, 46).map(each => each.id)
  const bulk = pool('bittern-bulk-01', 'RAID6', groups, spares, hdd.bytes, 46n)
  const fast = pool('bittern-fast-01', 'RAID1', [flash.slice(0, 6).map(each => each.id)], [], ssd.bytes, 6n)
  const placed = [...disks, ...flash].map(each => placedIn([bulk, fast], erring(array, each)))
  const ago = (days: number, gibibytes: number) => ({
    at: array.clock.now() - days * 86_400_000,
    bytes: gibibytes * Number(gibibyte),
  })
  const volumes = [
    volume(array, bulk, 'ct-scans-raw-01', 120_000n, 96_400n, 0.0004),
    volume(array, bulk, 'ct-scans-raw-02', 120_000n, 94_150n, 0.0021, weekly(128, [ago(90, 9_600)])),
    volume(array, bulk, 'ct-scans-derived-01', 60_000n, 47_700n, 0.011, weekly(12)),
    volume(array, bulk, 'staff-homes-01', 40_000n, 28_900n, 0.006, weekly(11)),
    volume(array, bulk, 'photo-studio-01', 80_000n, 58_100n, 0.003, weekly(34, [ago(63, -6_950)])),
    volume(array, bulk, 'field-recordings-01', 30_000n, 11_300n, 0.0012, steady(6)),
    volume(array, fast, 'ticket-desk-01', 400n, 212n, 0.09, weekly(0.4)),
    volume(array, fast, 'building-sensors-01', 250n, 84n, 0.02, steady(0.25)),
    volume(array, fast, 'reading-room-image-01', 1_200n, 640n, 0.004, weekly(1.1)),
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
  seedUsage(array)
  seedLoads(array)
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
  course?: UsageCourse,
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
    ...(course === undefined ? {} : { course: { ...course, seed: name } }),
    ...(loads[name] === undefined ? {} : { load: loads[name] }),
  }
}
