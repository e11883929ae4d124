'use client'
import { useEffect, useState } from 'react'
import type { NameAnswer, Node, NodePort } from '@/core/estate'
import { nameTrouble, readAddress, storageShare } from '@/core/network'
import type { SetStorageNetworkIntent } from '@/core/intents'
import type { ShownChange } from '@/core/views'
import { formatBitsPerSecond } from '@/core/units'
import { ask } from '../../api'
import type { Draft } from '../../drafts/useDraft'
import { Select } from '../../parts/Select'
import { X } from 'lucide-react'
import { Trouble } from '../../parts/State'

/** With the family, which the form always says. */
export type NetworkIntent = SetStorageNetworkIntent & { readonly family: 'IPv4' | 'IPv6' }

export type NodePlace = NetworkIntent['nodes'][number]

export interface SetStorageNetworkProps {
  readonly systemId: string
  readonly nodes: readonly Node[]
  readonly nodePorts: readonly NodePort[]
  readonly mtu: number | undefined
  readonly kept: ShownChange | undefined
}

const settleMilliseconds = 400

interface NodePlacesProps extends Pick<SetStorageNetworkProps, 'nodes' | 'nodePorts'> {
  readonly draft: Draft<NetworkIntent>
}

export function NodePlaces({ draft, nodes, nodePorts }: NodePlacesProps) {
  const { intent, set, plan } = draft
  const names = useNames(intent, nodes, draft.planAgain)
  const isStatic = intent.origin === 'static'
  const suggested = (place: NodePlace) => plan?.suggestions?.[place.nodeId]
  const error = draft.errorOf('nodes')
  return (
    <>
      <span className="label">Nodes</span>
      {error !== undefined && <Trouble>{error}</Trouble>}
      <table className="plain">
        <PlacesHead isStatic={isStatic} />
        <tbody>
          {intent.nodes.map((place, index) => (
            <PlaceRow
              key={place.nodeId}
              place={place}
              node={nodes.find(own => own.id === place.nodeId)}
              ports={nodePorts.filter(own => own.nodeId === place.nodeId)}
              isStatic={isStatic}
              names={names}
              suggestion={suggested(place) ?? (index === 0 ? '10.20.30.11/24' : '')}
              change={patch =>
                set({ nodes: intent.nodes.map(each => (each === place ? { ...each, ...patch } : each)) })
              }
              {...(intent.nodes.length > 1
                ? { leaveOut: () => set({ nodes: intent.nodes.filter(each => each !== place) }) }
                : {})}
            />
          ))}
        </tbody>
      </table>
      {isStatic && intent.nodes.some(place => (suggested(place) ?? place.address) !== place.address) && (
        <FillIn set={set} intent={intent} suggested={suggested} />
      )}
    </>
  )
}

interface PlaceRowProps {
  readonly place: NodePlace
  readonly node: Node | undefined
  readonly ports: readonly NodePort[]
  readonly isStatic: boolean
  readonly names: readonly NameAnswer[]
  readonly suggestion: string
  readonly change: (patch: Partial<NodePlace>) => void
  readonly leaveOut?: () => void
}

function PlaceRow({ place, node, ports, isStatic, names, suggestion, change, leaveOut }: PlaceRowProps) {
  const port = ports.find(own => own.id === place.portId)
  const name = node?.name ?? ''
  return (
    <tr>
      <td className="whitespace-nowrap">{name}</td>
      <PortCell name={name} place={place} ports={ports} change={change} port={port} />
      {isStatic && (
        <td>
          <input
            className="field mono h-[26px]"
            aria-label={`Address of ${name}`}
            value={place.address}
            placeholder={suggestion}
            spellCheck={false}
            onChange={event => change({ address: event.target.value })}
          />
          <NameAgreement hostName={node?.hostName ?? null} address={place.address} names={names} />
        </td>
      )}
      <td>
        {leaveOut !== undefined && (
          <button
            type="button"
            className="border-0 bg-transparent p-0 text-faint"
            aria-label={`Leave out ${name}`}
            onClick={leaveOut}
          >
            <X aria-hidden size={14} />
          </button>
        )}
      </td>
    </tr>
  )
}

/** Whether the name server leads from the node's name to the address and back. */
function NameAgreement({
  hostName,
  address,
  names,
}: {
  readonly hostName: string | null
  readonly address: string
  readonly names: readonly NameAnswer[]
}) {
  const read = readAddress(address)?.address
  if (hostName === null || read === undefined) return null
  const trouble = nameTrouble(hostName, read, names)
  if (trouble === null) return null
  return trouble === undefined ? (
    <Trouble gravity="fine">names agree</Trouble>
  ) : (
    <Trouble gravity="soon">{trouble}</Trouble>
  )
}

const portWords = ({ name, speedBitsPerSecond, traffic }: NodePort) =>
  `${name}, ${formatBitsPerSecond(speedBitsPerSecond)}, ${traffic.length === 0 ? 'own' : 'shared'}`

/** Asks the name server for the addresses being typed, a moment after the last key; the plan then knows the answers too. */
function useNames(intent: NetworkIntent, nodes: readonly Node[], told: () => void): readonly NameAnswer[] {
  const [answers, setAnswers] = useState<readonly NameAnswer[]>([])
  const addresses = intent.nodes.flatMap(each => readAddress(each.address)?.address ?? []).join(' ')
  const names = intent.nodes.flatMap(each => nodes.find(node => node.id === each.nodeId)?.hostName ?? []).join(' ')
  useEffect(() => {
    if (addresses === '') return
    const stop = new AbortController()
    const timer = setTimeout(async () => {
      const answer = await ask<{ items: NameAnswer[] }>(
        'POST',
        '/name-lookups',
        { names: names.split(' ').filter(Boolean), addresses: addresses.split(' ') },
        stop.signal,
      )
      if (!answer.ok || stop.signal.aborted) return
      setAnswers(answer.value.items)
      told()
    }, settleMilliseconds)
    return () => {
      clearTimeout(timer)
      stop.abort()
    }
  }, [addresses, names, told])
  return answers
}

interface PortCellProps {
  readonly name: string
  readonly place: NodePlace
  readonly ports: readonly NodePort[]
  readonly change: (patch: Partial<NodePlace>) => void
  readonly port: NodePort | undefined
}

const PortCell = ({ name, place, ports, change, port }: PortCellProps) => (
  <td>
    <Select
      className="h-[26px] py-0"
      aria-label={`Port of ${name}`}
      value={place.portId}
      options={ports.map(own => ({ value: own.id, words: portWords(own) }))}
      onChange={portId => change({ portId })}
    />
    {port !== undefined && port.traffic.length > 0 && (
      <div className="hint">
        with {port.traffic.join(' and ')}: {(storageShare(port.traffic) * 100).toFixed(0)}% when all are busy
      </div>
    )}
  </td>
)

interface FillInProps {
  readonly set: (patch: Partial<NetworkIntent>) => void
  readonly intent: NetworkIntent
  readonly suggested: (place: NodePlace) => string | undefined
}

const FillIn = ({ set, intent, suggested }: FillInProps) => (
  <button
    type="button"
    className="button quiet mt-2"
    onClick={() =>
      set({ nodes: intent.nodes.map(place => ({ ...place, address: suggested(place) ?? place.address })) })
    }
  >
    Fill in the addresses that follow the first
  </button>
)

interface PlacesHeadProps {
  readonly isStatic: boolean
}

const PlacesHead = ({ isStatic }: PlacesHeadProps) => (
  <thead>
    <tr>
      <th>Node</th>
      <th>Port</th>
      {isStatic && <th>Address with subnet</th>}
      <th />
    </tr>
  </thead>
)
