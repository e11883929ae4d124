'use client'
import { useRouter } from 'next/navigation'
import type { KeyboardEvent } from 'react'
import type { Node, NodePort, Switch, SwitchPort } from '@/core/estate'
import { networkPlaces, type NetworkPlaces } from './networkPlaces'
import { Cable, NodeBox, NodePortBox, SwitchBox, SwitchPortBox } from './networkParts'

interface NetworkDrawingProps {
  readonly nodes: readonly Node[]
  readonly nodePorts: readonly NodePort[]
  readonly switches: readonly Switch[]
  readonly switchPorts: readonly SwitchPort[]
  /** Ports that explain a path that fails. */
  readonly guilty: ReadonlySet<string>
  readonly systemId: string
}

const width = 780

/** Nodes and switches as they are cabled: what each port carries, and where it is too narrow. A port opens its draft. */
export function NetworkDrawing({ nodes, nodePorts, switches, switchPorts, guilty, systemId }: NetworkDrawingProps) {
  const places = networkPlaces(nodes, nodePorts, switches, switchPorts, width)
  const isGuiltyCable = ({ nodePort, switchPort }: NetworkPlaces['cables'][number]) =>
    guilty.has(switchPort.id) || (nodePort !== undefined && guilty.has(nodePort.id))
  const opens = useOpens(`/build/network?system=${systemId}`)
  return (
    <figure className="m-0">
      <Head nodes={nodes} switches={switches} />
      <svg
        viewBox={`-2 0 ${width + 4} ${places.height}`}
        className="block w-full"
        role="group"
        aria-label="Nodes and switches as they are cabled; the table below lists the same ports"
      >
        {places.nodes.map(place => (
          <NodeBox key={place.node.id} place={place} />
        ))}
        {places.switches.map(place => (
          <SwitchBox key={place.each.id} place={place} />
        ))}
        {places.cables.map(cable => (
          <Cable key={cable.id} cable={cable} isGuilty={isGuiltyCable(cable)} />
        ))}
        {places.nodePorts.map(place => (
          <NodePortBox
            key={place.port.id}
            place={place}
            owner={nodes.find(node => node.id === place.port.nodeId)?.name ?? ''}
            isGuilty={guilty.has(place.port.id)}
            opens={opens('set-storage-network')}
          />
        ))}
        {places.switchPorts.map(place => (
          <SwitchPortBox
            key={place.port.id}
            place={place}
            owner={switches.find(each => each.id === place.port.switchId)?.name ?? ''}
            isGuilty={guilty.has(place.port.id)}
            opens={opens('set-switch-port', place.port.id)}
          />
        ))}
      </svg>
    </figure>
  )
}

/** What makes a part of the drawing lead to a draft, by pointer and key. */
function useOpens(page: string) {
  const router = useRouter()
  return (kind: string, portId?: string) => {
    const open = () => router.push(`${page}&draft=${kind}${portId === undefined ? '' : `&port=${portId}`}`)
    return {
      role: 'link',
      tabIndex: 0,
      className: 'cursor-pointer',
      onClick: open,
      onKeyDown: (event: KeyboardEvent) => {
        if (event.key === 'Enter') open()
      },
    }
  }
}

interface HeadProps {
  readonly nodes: readonly Node[]
  readonly switches: readonly Switch[]
}

const Head = ({ nodes, switches }: HeadProps) => (
  <h3>
    As it is cabled{' '}
    <span>
      {nodes.length} nodes, {switches.length} switches; strong lines carry storage
    </span>
  </h3>
)
