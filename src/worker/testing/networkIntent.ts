import { within } from '@/core/estate'
import type { workbench } from './workbench'

/** The storage network of some nodes of the row, each by its first port. */
export async function networkIntent(
  bench: Awaited<ReturnType<typeof workbench>>,
  systemId: string,
  names: readonly string[],
  more: object = {},
) {
  const { nodes, nodePorts } = await bench.estate(within(systemId))
  return {
    systemId,
    nodes: names.map(name => {
      const node = nodes.find(each => each.name === name)
      const port = nodePorts.find(each => each.nodeId === node?.id && each.name === 'port 1')
      return { nodeId: node?.id, portId: port?.id, address: `10.20.30.1${name.slice(-1)}/24` }
    }),
    origin: 'static',
    vlan: 30,
    mtu: 9000,
    ...more,
  }
}
