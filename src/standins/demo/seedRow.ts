import type { SimulatedArray } from '../array'
import { seededHex, seededNumber } from '../fleet'
import type { NameServer } from '../names/NameServer'
import type { NodeEntity, NodePortEntity, RawDrives, SimulatedRow, SwitchPortEntity } from '../row'
import { drive, type DriveKind } from './seedFleet'

const cache: DriveKind = {
  media: 'SSD',
  protocol: 'SAS',
  bytes: 800_166_076_416n,
  model: 'MF-C800',
  bytesPerSecond: 0.88e9,
  writesPerDay: 10,
}
const disk: DriveKind = {
  media: 'HDD',
  protocol: 'SAS',
  bytes: 4_000_787_030_016n,
  model: 'MF-D4',
  bytesPerSecond: 0.172e9,
}
const smallDisk: DriveKind = {
  media: 'HDD',
  protocol: 'SAS',
  bytes: 2_000_398_934_016n,
  model: 'MF-D2',
  bytesPerSecond: 0.158e9,
}
const boot: DriveKind = {
  media: 'SSD',
  protocol: 'NVMe',
  bytes: 240_057_409_536n,
  model: 'MF-B240',
  bytesPerSecond: 1.1e9,
  writesPerDay: 1,
}

const zone = 'kilnhill.marrowfield.example'
const jumbo = 9216

/**
 * The row at Kiln Hill: five bare nodes and two switches. Two nodes still have disks of half the size, one disk has an earlier use's
 * partitions on it, and one switch port was never set to large frames. The lease service
 * keeps addresses for all nodes but the last.
 */
export function seedRow(array: SimulatedArray, row: SimulatedRow, raw: RawDrives, names: NameServer): void {
  const nodes = array.model.enclosures.map(({ id, rack }) => nodeOf(id, rack))
  const drives = nodes.flatMap(({ id }, index) => drivesOf(array, id, index))
  for (const each of drives) if (each.leftOver !== null) raw.leaveOver(each, each.serial)
  array.store.commit([
    ...drives.map(each => array.entry('drives', each)),
    ...nodes.map(each => row.entry('nodes', each)),
    ...nodes.flatMap(({ id }, index) => nodePortsOf(id, index)).map(each => row.entry('nodePorts', each)),
    ...switches.map(each => row.entry('switches', each)),
    ...switches
      .flatMap(({ id }, index) => switchPortsOf(id, index, nodes.length))
      .map(each => row.entry('switchPorts', each)),
  ])
  nodes.forEach(({ hostName }, index) => {
    names.setForward(hostName, `10.20.30.${11 + index}`)
    names.setReverse(`10.20.30.${11 + index}`, hostName)
  })
  for (const [name, first, count] of fileServiceNames) {
    const [, net = '', last = '0'] = /^(.*\.)(\d+)$/.exec(first) ?? []
    const addresses = Array.from({ length: count }, (_, index) => `${net}${Number(last) + index}`)
    names.zones.replace(
      name,
      ['A'],
      addresses.map(data => ({ type: 'A', data })),
    )
    addresses.forEach(address => names.setReverse(address, name))
  }
}

/** Names under which files will be served, set beforehand by whoever looks after names: the first address, and how many. */
const fileServiceNames = [
  ['files.kilnhill.marrowfield.example', '10.61.40.21', 4],
  ['files.canal.marrowfield.example', '10.60.2.40', 2],
] as const

const switches = [1, 2].map(number => ({
  id: `switch-${number}`,
  name: `row switch ${number}`,
  model: 'MF-X24',
  firmware: '1.8.2',
}))

const nodeOf = (id: string, rack: string | undefined): NodeEntity => ({
  id,
  hostName: `${id}.${zone}`,
  rack: rack ?? 'Rack K1',
  serial: seededHex('node', id, 10).toUpperCase(),
  model: 'M-210',
  firmware: '2.4.1',
  isUp: true,
  downSince: null,
  restartingUntil: null,
  clockOffsetSeconds: (seededNumber('clock', id, 0, 8) - 4) / 10,
  isRestartServiceOn: true,
  mostCapacityDrives: 7,
})

const nodePortsOf = (nodeId: string, index: number): NodePortEntity[] =>
  [1, 2].map(number => ({
    id: `${nodeId}.${number}`,
    nodeId,
    name: `port ${number}`,
    mac: `02:${seededHex('mac', `${nodeId}/${number}`, 10).match(/../g)?.join(':') ?? ''}`,
    speedGbps: 25,
    isUp: true,
    mtu: 1500,
    traffic: number === 1 ? [] : ['host access', 'management'],
    switchPortId: `switch-${number}.${index + 1}`,
    hasReservation: number === 1 && index < 4,
    storage: null,
  }))

/** A port to each node, and the last to the other switch. */
function switchPortsOf(switchId: string, index: number, nodes: number): SwitchPortEntity[] {
  const common = { switchId, mtu: jumbo, vlans: index === 0 ? [1, 30] : [1, 20, 30], isUp: true, peerPortId: null }
  return [
    ...Array.from({ length: nodes }, (_, at) => ({
      ...common,
      id: `${switchId}.${at + 1}`,
      name: `${at + 1}`,
      mtu: index === 0 && at === 2 ? 1500 : jumbo,
    })),
    {
      ...common,
      id: `${switchId}.24`,
      name: '24',
      vlans: [1, 20, 30],
      peerPortId: `switch-${index === 0 ? 2 : 1}.24`,
    },
  ]
}

const leftOver = {
  system: 'plover, the scanning room of 2023',
  lastUsedAt: '2023-09-14T00:00:00.000Z',
  partitions: ['partition 1: boot, 512 MiB', 'partition 2: journalled file system "scans-old", 3.6 TiB'],
}

const drivesOf = (array: SimulatedArray, nodeId: string, index: number) => [
  ...[1, 2, 3, 4, 5, 6, 7, 8].map(bay => {
    const made = drive(array, (index === 1 || index === 3) && bay > 6 ? smallDisk : disk, nodeId, bay)
    return nodeId === 'godwit-3' && bay === 5 ? { ...made, leftOver } : made
  }),
  ...[9, 10].map(bay => drive(array, cache, nodeId, bay)),
  { ...drive(array, boot, nodeId, 11), isBoot: true },
]
