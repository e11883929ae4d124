'use client'
import { useRouter } from 'next/navigation'
import type { Node, NodePort, Switch, SwitchPort } from '@/core/estate'
import { networkPlaces, portPixels } from './networkPlaces'

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
  const router = useRouter()
  const places = networkPlaces(nodes, nodePorts, switches, switchPorts, width)
  const opens = (href: string, label: string) => ({
    role: 'link',
    tabIndex: 0,
    'aria-label': label,
    className: 'cursor-pointer',
    onClick: () => router.push(href),
    onKeyDown: (event: React.KeyboardEvent) => {
      if (event.key === 'Enter') router.push(href)
    },
  })
  return (
    <figure className="m-0">
      <h3>
        As it is cabled{' '}
        <span>
          {nodes.length} nodes, {switches.length} switches; strong lines carry storage
        </span>
      </h3>
      <svg
        viewBox={`-2 0 ${width + 4} ${places.height}`}
        className="block w-full"
        role="group"
        aria-label="Nodes and switches as they are cabled; the table below lists the same ports"
      >
        {places.nodes.map(({ node, x, y, width: own }) => (
          <g key={node.id}>
            <rect
              x={x}
              y={y}
              width={own}
              height={78}
              fill="var(--sheet)"
              stroke={node.state === 'fine' ? 'var(--faint)' : 'var(--now)'}
            />
            <text x={x + 9} y={y + 20} style={{ fontSize: 13, fontWeight: 600 }}>
              {node.name}
            </text>
            <text x={x + 9} y={y + 37} style={{ fill: node.state === 'fine' ? 'var(--second)' : 'var(--now)' }}>
              {node.state === 'fine'
                ? `${node.rack ?? 'no rack stated'} · ${node.firmware ?? ''}`
                : '▲ does not answer'}
            </text>
          </g>
        ))}
        {places.switches.map(({ each, x, y, width: own }) => (
          <g key={each.id}>
            <rect x={x} y={y} width={own} height={46} fill="var(--sheet)" stroke="var(--faint)" />
            <text x={x + 9} y={y + 19} style={{ fontSize: 12, fontWeight: 600 }}>
              {each.name}
            </text>
            <text x={x + 9} y={y + 35} style={{ fontSize: 10.5, fill: 'var(--second)' }}>
              {each.model ?? ''}
            </text>
          </g>
        ))}
        {places.cables.map(({ id, from, to, nodePort, switchPort }) => {
          const isStorage = nodePort === undefined || nodePort.storage !== null
          const isGuilty = guilty.has(switchPort.id) || (nodePort !== undefined && guilty.has(nodePort.id))
          const middle = (from.y + to.y) / 2
          return (
            <path
              key={id}
              d={`M ${from.x} ${from.y} C ${from.x} ${middle}, ${to.x} ${middle}, ${to.x} ${to.y}`}
              fill="none"
              stroke={isGuilty ? 'var(--now)' : isStorage ? 'var(--d4)' : 'var(--rule)'}
              strokeWidth={isStorage ? 2 : 1}
              strokeDasharray={switchPort.isUp ? undefined : '4 4'}
            />
          )
        })}
        {places.nodePorts.map(({ port, x, y }) => {
          const owner = nodes.find(node => node.id === port.nodeId)?.name ?? ''
          const isGuilty = guilty.has(port.id)
          return (
            <g
              key={port.id}
              {...opens(
                `/build/network?system=${systemId}&draft=set-storage-network`,
                `${owner} ${port.name}, MTU ${port.mtu}, ${port.storage === null ? 'no storage' : `storage ${port.storage.address ?? ''}`}. Set the storage network`,
              )}
            >
              <rect
                x={x - portPixels.width / 2}
                y={y - portPixels.height / 2}
                width={portPixels.width}
                height={portPixels.height}
                fill={port.storage === null ? 'var(--paper)' : 'color-mix(in srgb, var(--d4) 22%, var(--sheet))'}
                stroke={isGuilty ? 'var(--now)' : port.isUp ? 'var(--faint)' : 'var(--now)'}
                strokeWidth={isGuilty ? 2 : 1}
              />
              <text x={x} y={y - 2} textAnchor="middle" style={{ fontSize: 10, fill: 'var(--second)' }}>
                {port.name.replace('port ', 'p')}
              </text>
              <text
                x={x}
                y={y + 10}
                textAnchor="middle"
                style={{ fontSize: 10.5, fontFamily: 'var(--font-mono)', fill: isGuilty ? 'var(--now)' : 'var(--ink)' }}
              >
                {port.mtu}
              </text>
            </g>
          )
        })}
        {places.nodePorts.map(({ port, x, y }) =>
          port.storage?.address == null ? null : (
            <text
              key={port.id}
              x={x}
              y={y - 20}
              textAnchor="middle"
              style={{ fontSize: 10, fontFamily: 'var(--font-mono)', fill: 'var(--second)' }}
            >
              {port.storage.address.includes(':')
                ? port.storage.address.split(':').at(-1)
                : `.${port.storage.address.split('.').at(-1) ?? ''}`}
            </text>
          ),
        )}
        {places.switchPorts.map(({ port, x, y }) => {
          const isGuilty = guilty.has(port.id)
          const owner = switches.find(each => each.id === port.switchId)?.name ?? ''
          return (
            <g
              key={port.id}
              {...opens(
                `/build/network?system=${systemId}&draft=set-switch-port&port=${port.id}`,
                `${owner} port ${port.name}, MTU ${port.mtu}, VLANs ${port.vlans.join(', ')}. Set this port`,
              )}
            >
              <rect
                x={x - 30}
                y={y + 6}
                width={60}
                height={32}
                fill="var(--paper)"
                stroke={isGuilty ? 'var(--now)' : 'var(--rule)'}
                strokeWidth={isGuilty ? 2 : 1}
              />
              <text x={x} y={y + 19} textAnchor="middle" style={{ fontSize: 10, fill: 'var(--second)' }}>
                {port.name}
                {port.peerPortId === null ? '' : ' ⇅'}
              </text>
              <text
                x={x}
                y={y + 32}
                textAnchor="middle"
                style={{ fontSize: 11, fontFamily: 'var(--font-mono)', fill: isGuilty ? 'var(--now)' : 'var(--ink)' }}
              >
                {isGuilty ? '▲ ' : ''}
                {port.mtu}
              </text>
            </g>
          )
        })}
      </svg>
    </figure>
  )
}
