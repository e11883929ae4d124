'use client'
import type { Node, NodePort } from '@/core/estate'
import { storagePort } from '@/core/network'
import { IntentForm } from '../../drafts/IntentForm'
import { type SetStorageNetworkProps, type NetworkIntent, NodePlaces, type NodePlace } from './NodePlaces'

/** The storage network of the nodes: a port each, addresses filled in from the first, VLAN and MTU for all. */
export function SetStorageNetwork({ systemId, nodes, nodePorts, mtu, kept }: SetStorageNetworkProps) {
  const storage = nodePorts.find(port => port.storage !== null)?.storage
  return (
    <IntentForm<NetworkIntent>
      kind="set-storage-network"
      title="Storage network"
      begin={{
        systemId,
        nodes: nodes.map(node => placeOf(node, nodePorts)),
        origin: nodePorts.some(port => port.storage?.origin === 'leased') ? 'leased' : 'static',
        family: storage?.family ?? 'IPv4',
        vlan: storage?.vlan ?? null,
        mtu: mtu ?? 9000,
      }}
      parts={{ nodes: draft => <NodePlaces draft={draft} nodes={nodes} nodePorts={nodePorts} /> }}
      kept={kept}
    />
  )
}

/** The port and address that a node has, or the port that it would best have. */
function placeOf(node: Node, nodePorts: readonly NodePort[]): NodePlace {
  const own = nodePorts.filter(port => port.nodeId === node.id)
  const now = storagePort(nodePorts, node.id)
  const best = now ?? own.find(port => port.traffic.length === 0 && port.isUp) ?? own[0]
  const storage = now?.storage
  return {
    nodeId: node.id,
    portId: best?.id ?? node.id,
    address: storage?.address == null ? '' : `${storage.address}/${storage.prefixLength}`,
  }
}
