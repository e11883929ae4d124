import type { SVGProps } from 'react'
import type { NodePort } from '@/core/estate'
import { portPixels, type NetworkPlaces } from './networkPlaces'

type Opens = Pick<SVGProps<SVGGElement>, 'role' | 'tabIndex' | 'className' | 'onClick' | 'onKeyDown'>
const mono = 'var(--font-mono)'

export const NodeBox = ({ place: { node, x, y, width } }: { readonly place: NetworkPlaces['nodes'][number] }) => (
  <g>
    <rect
      x={x}
      y={y}
      width={width}
      height={78}
      fill="var(--sheet)"
      stroke={node.state === 'fine' ? 'var(--faint)' : 'var(--now)'}
    />
    <text x={x + 9} y={y + 20} style={{ fontSize: 13, fontWeight: 600 }}>
      {node.name}
    </text>
    <text x={x + 9} y={y + 37} style={{ fill: node.state === 'fine' ? 'var(--second)' : 'var(--now)' }}>
      {node.state === 'fine' ? `${node.rack ?? 'no rack stated'} · ${node.firmware ?? ''}` : '▲ does not answer'}
    </text>
  </g>
)

export const SwitchBox = ({ place: { each, x, y, width } }: { readonly place: NetworkPlaces['switches'][number] }) => (
  <g>
    <rect x={x} y={y} width={width} height={46} fill="var(--sheet)" stroke="var(--faint)" />
    <text x={x + 9} y={y + 19} style={{ fontSize: 12, fontWeight: 600 }}>
      {each.name}
    </text>
    <text x={x + 9} y={y + 35} style={{ fontSize: 10.5, fill: 'var(--second)' }}>
      {each.model ?? ''}
    </text>
  </g>
)

interface CableProps {
  readonly cable: NetworkPlaces['cables'][number]
  readonly isGuilty: boolean
}

export function Cable({ cable: { from, to, nodePort, switchPort }, isGuilty }: CableProps) {
  const isStorage = nodePort === undefined || nodePort.storage !== null
  const middle = (from.y + to.y) / 2
  return (
    <path
      d={`M ${from.x} ${from.y} C ${from.x} ${middle}, ${to.x} ${middle}, ${to.x} ${to.y}`}
      fill="none"
      stroke={isGuilty ? 'var(--now)' : isStorage ? 'var(--d4)' : 'var(--rule)'}
      strokeWidth={isStorage ? 2 : 1}
      strokeDasharray={switchPort.isUp ? undefined : '4 4'}
    />
  )
}

interface PortProps<Place> {
  readonly place: Place
  /** The node or switch that it belongs to. */
  readonly owner: string
  /** Whether it explains a path that fails. */
  readonly isGuilty: boolean
  readonly opens: Opens
}

export function NodePortBox({ place, owner, isGuilty, opens }: PortProps<NetworkPlaces['nodePorts'][number]>) {
  const { port, x, y } = place
  const carries = port.storage === null ? 'no storage' : `storage ${port.storage.address ?? ''}`
  return (
    <g {...opens} aria-label={`${owner} ${port.name}, MTU ${port.mtu}, ${carries}. Set the storage network`}>
      <rect
        x={x - portPixels.width / 2}
        y={y - portPixels.height / 2}
        width={portPixels.width}
        height={portPixels.height}
        fill={port.storage === null ? 'var(--paper)' : 'color-mix(in srgb, var(--d4) 22%, var(--sheet))'}
        stroke={isGuilty || !port.isUp ? 'var(--now)' : 'var(--faint)'}
        strokeWidth={isGuilty ? 2 : 1}
      />
      <text x={x} y={y - 2} textAnchor="middle" style={{ fontSize: 10, fill: 'var(--second)' }}>
        {port.name.replace('port ', 'p')}
      </text>
      <text
        x={x}
        y={y + 10}
        textAnchor="middle"
        style={{ fontSize: 10.5, fontFamily: mono, fill: isGuilty ? 'var(--now)' : 'var(--ink)' }}
      >
        {port.mtu}
      </text>
      <text x={x} y={y - 20} textAnchor="middle" style={{ fontSize: 10, fontFamily: mono, fill: 'var(--second)' }}>
        {endOf(port)}
      </text>
    </g>
  )
}

/** The end of a port's address, by which those of one network differ. */
function endOf({ storage }: NodePort): string {
  const address = storage?.address ?? ''
  if (address === '') return ''
  return address.includes(':') ? (address.split(':').at(-1) ?? '') : `.${address.split('.').at(-1) ?? ''}`
}

export function SwitchPortBox({ place, owner, isGuilty, opens }: PortProps<NetworkPlaces['switchPorts'][number]>) {
  const { port, x, y } = place
  const words = `${owner} port ${port.name}, MTU ${port.mtu}, VLANs ${port.vlans.join(', ')}. Set this port`
  return (
    <g {...opens} aria-label={words}>
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
        style={{ fontSize: 11, fontFamily: mono, fill: isGuilty ? 'var(--now)' : 'var(--ink)' }}
      >
        {isGuilty ? '▲ ' : ''}
        {port.mtu}
      </text>
    </g>
  )
}
