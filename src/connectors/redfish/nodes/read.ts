import type { Inventory } from '@/ports'
import type { Connection } from '../Connection'
import type { ServiceMap } from '../service/serviceMap'
import { clockOffsets } from './clockOffsets'
import { readClusterName } from '../clusters/read'
import { ofMaker } from '../makers'
import { readFarEnds, readSwitches, storageOf } from '../network/read'
import { isEthernetInterface } from '../network/schema'
import type { Checked } from '../schema'
import { isComputer } from './schema'

type Row = Pick<Inventory, 'nodes' | 'nodePorts' | 'switches' | 'switchPorts' | 'clusterName'>
const none: Row = { nodes: [], nodePorts: [], switches: [], switchPorts: [], clusterName: null }

/** Nodes with their ports and clocks, the switches between them, and the cluster that they form; nothing where the system has no nodes. */
export async function readRow(connection: Connection, map: ServiceMap): Promise<Row> {
  if (map.computers === undefined) return none
  const computers = await connection.members(map.computers, isComputer)
  const clocks = await clockOffsets(connection, map.managers)
  const { switches, switchPorts } = await readSwitches(connection, map.fabrics)
  const nodes: Row['nodes'][number][] = []
  const nodePorts: Row['nodePorts'][number][] = []
  for (const computer of computers) {
    const locator = computer['@odata.id']
    const chassis = computer.Links?.Chassis?.[0]?.['@odata.id'] ?? null
    const clockOffsetSeconds = clocks.get(locator) ?? 0
    nodes.push({ ...foundNode(computer, chassis), rack: map.rackOf.get(chassis ?? '') ?? null, clockOffsetSeconds })
    if (computer.EthernetInterfaces === undefined) continue
    const farEnd = await readFarEnds(connection, chassis)
    for (const port of await connection.members(computer.EthernetInterfaces['@odata.id'], isEthernetInterface)) {
      const switchPortLocator = switchPorts.get(farEnd.get(port.MACAddress) ?? '')?.locator ?? null
      nodePorts.push({ ...foundPort(port), nodeLocator: locator, switchPortLocator })
    }
  }
  return {
    nodes,
    nodePorts,
    switches,
    switchPorts: [...switchPorts.values()],
    clusterName: await readClusterName(connection, map),
  }
}

const foundNode = (computer: Checked<typeof isComputer>, chassis: string | null) => ({
  locator: computer['@odata.id'],
  name: computer.Name,
  hostName: computer.HostName ?? null,
  enclosureLocator: chassis,
  state: computer.Status.State === 'Enabled' ? ('fine' as const) : ('not answering' as const),
  firmware: computer.BiosVersion ?? null,
  model: computer.Model ?? null,
  isRestartServiceOn: computer.HostWatchdogTimer?.FunctionEnabled ?? false,
  ...ofMaker.computer(computer),
  memoryBytes: (computer.MemorySummary?.TotalSystemMemoryGiB ?? 0) * 2 ** 30,
})

const foundPort = (port: Checked<typeof isEthernetInterface>) => ({
  locator: port['@odata.id'],
  name: port.Name,
  mac: port.MACAddress,
  speedBitsPerSecond: (port.SpeedMbps ?? 0) * 1e6,
  isUp: port.LinkStatus === 'LinkUp',
  mtu: port.MTUSize ?? 1500,
  traffic: [...ofMaker.interface(port).traffic],
  storage: storageOf(port),
})
