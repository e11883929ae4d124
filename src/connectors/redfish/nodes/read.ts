import type { Inventory } from '@/ports'
import type { Connection } from '../Connection'
import type { ServiceMap } from '../service/serviceMap'
import { clockOffsets } from './clockOffsets'
import { readClusterName } from '../clusters/read'
import { ofMaker } from '../makers'
import { readFarEnds, readSwitches, storageOf } from '../network/read'
import { isEthernetInterface } from '../network/schema'
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
    nodes.push({
      locator,
      name: computer.Name,
      hostName: computer.HostName ?? null,
      rack: map.rackOf.get(chassis ?? '') ?? null,
      enclosureLocator: chassis,
      state: computer.Status.State === 'Enabled' ? 'fine' : 'not answering',
      firmware: computer.BiosVersion ?? null,
      model: computer.Model ?? null,
      clockOffsetSeconds: clocks.get(locator) ?? 0,
      isRestartServiceOn: computer.HostWatchdogTimer?.FunctionEnabled ?? false,
      ...ofMaker.computer(computer),
      memoryBytes: (computer.MemorySummary?.TotalSystemMemoryGiB ?? 0) * 2 ** 30,
    })
    if (computer.EthernetInterfaces === undefined) continue
    const farEnd = await readFarEnds(connection, chassis)
    for (const port of await connection.members(computer.EthernetInterfaces['@odata.id'], isEthernetInterface)) {
      nodePorts.push({
        locator: port['@odata.id'],
        nodeLocator: locator,
        name: port.Name,
        mac: port.MACAddress,
        speedBitsPerSecond: (port.SpeedMbps ?? 0) * 1e6,
        isUp: port.LinkStatus === 'LinkUp',
        mtu: port.MTUSize ?? 1500,
        traffic: [...ofMaker.interface(port).traffic],
        switchPortLocator: switchPorts.get(farEnd.get(port.MACAddress) ?? '')?.locator ?? null,
        storage: storageOf(port),
      })
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
