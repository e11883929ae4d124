import { within } from '@/core/estate'
import { factOf } from './blocks'
import type { workbench } from './workbench'

type Bench = Awaited<ReturnType<typeof workbench>>
const nodeNames = ['godwit-1', 'godwit-2', 'godwit-3', 'godwit-4']

/** Forms a cluster of four nodes of the row, from its bare nodes. @returns the system and its pool */
export async function formed(bench: Bench): Promise<{ readonly systemId: string; readonly poolId: string }> {
  const systemId = await bench.registered('godwit')
  const row = () => bench.estate(within(systemId))
  const done = async (kind: string, intent: object) => {
    const change = await bench.carriedOut(kind, intent)
    expect([kind, change.state, change.refusal?.why]).toEqual([kind, 'proven', undefined])
    return change
  }
  const { drives, nodes, nodePorts, switchPorts } = await row()
  const forgotten = switchPorts.find(({ mtu }) => mtu === 1500)
  await bench.carriedOut('set-switch-port', {
    ...{ systemId, switchPortId: forgotten?.id, mtu: 9216, vlans: forgotten?.vlans ?? [] },
  })
  const foreign = drives.find(({ leftOver }) => leftOver !== null)
  const erased = { systemId, driveId: foreign?.id, lastFour: foreign?.serial.slice(-4), isWhole: false }
  await done('erase-drive', erased)
  await done('set-storage-network', {
    systemId,
    nodes: nodeNames.map((name, index) => {
      const node = nodes.find(each => each.name === name)
      const port = nodePorts.find(each => each.nodeId === node?.id && each.name === 'port 1')
      return { nodeId: node?.id, portId: port?.id, address: `10.20.30.${11 + index}/24` }
    }),
    ...{ origin: 'static', vlan: 30, mtu: 9000 },
  })
  const members = nodes.filter(({ name }) => nodeNames.includes(name)).map(({ id }) => id)
  const cluster = await done('form-cluster', {
    systemId,
    name: 'kiln',
    driveIds: drives.filter(drive => members.includes(drive.nodeId ?? '') && !drive.isBoot).map(({ id }) => id),
    roles: {},
    domain: 'node',
    scheme: { kind: 'erasure', dataPieces: 2, parityPieces: 1 },
    ...{ keepsRebuildReserve: true, snapshotSharePercent: 10 },
  })
  const pool = (await bench.estate()).pools.find(each => each.systemId === systemId)
  return { systemId, poolId: pool?.id ?? factOf(cluster, 'poolId') }
}
