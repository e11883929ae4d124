'use client'
import { useEffect, useState } from 'react'
import type { NameAnswer, Node, NodePort } from '@/core/estate'
import { nameTrouble, readAddress, storagePort, storageShare } from '@/core/network'
import type { SetStorageNetworkIntent } from '@/core/intents'
import type { ChangeRecord } from '@/core/views'
import { formatBitsPerSecond } from '@/core/units'
import { ask } from '../../api'
import { DraftFrame } from '../../drafts/DraftFrame'
import { useDraft } from '../../drafts/useDraft'
import { Choice } from '../../parts/Choice'
import { TextField } from '../../parts/TextField'
import { Select } from '../../parts/Select'
import { X } from 'lucide-react'
import { Trouble } from '../../parts/State'

/** With the family, which the form always says. */
type NetworkIntent = SetStorageNetworkIntent & { readonly family: 'IPv4' | 'IPv6' }

interface SetStorageNetworkProps {
  readonly systemId: string
  readonly nodes: readonly Node[]
  readonly nodePorts: readonly NodePort[]
  readonly mtu: number | undefined
  readonly kept: ChangeRecord | undefined
}

const settleMilliseconds = 400

/** The storage network of the nodes: a port each, addresses filled in from the first, VLAN and MTU for all. */
export function SetStorageNetwork({ systemId, nodes, nodePorts, mtu, kept }: SetStorageNetworkProps) {
  const initial: NetworkIntent = {
    systemId,
    nodes: nodes.map(node => {
      const own = nodePorts.filter(port => port.nodeId === node.id)
      const now = storagePort(nodePorts, node.id)
      const best = now ?? own.find(port => port.traffic.length === 0 && port.isUp) ?? own[0]
      const storage = now?.storage
      return {
        nodeId: node.id,
        portId: best?.id ?? node.id,
        address: storage?.address == null ? '' : `${storage.address}/${storage.prefixLength}`,
      }
    }),
    origin: nodePorts.some(port => port.storage?.origin === 'leased') ? 'leased' : 'static',
    family: nodePorts.find(port => port.storage !== null)?.storage?.family ?? 'IPv4',
    vlan: nodePorts.find(port => port.storage !== null)?.storage?.vlan ?? null,
    mtu: mtu ?? 9000,
  }
  const draft = useDraft<NetworkIntent>('set-storage-network', initial, kept)
  const { intent, set, plan, planAgain } = draft
  const names = useNames(intent, nodes, planAgain)
  const change = (nodeId: string, patch: { readonly portId?: string; readonly address?: string }) =>
    set({ nodes: intent.nodes.map(each => (each.nodeId === nodeId ? { ...each, ...patch } : each)) })
  const fillIn = () =>
    set({ nodes: intent.nodes.map(each => ({ ...each, address: plan?.suggestions?.[each.nodeId] ?? each.address })) })
  const canFill = intent.nodes.some(each => (plan?.suggestions?.[each.nodeId] ?? each.address) !== each.address)
  const leaveOut = (nodeId: string) => set({ nodes: intent.nodes.filter(each => each.nodeId !== nodeId) })
  return (
    <DraftFrame title="Storage network" draft={draft}>
      <Choice
        label="Addresses"
        value={intent.origin}
        options={[
          { value: 'static', words: 'set by hand' },
          { value: 'leased', words: 'leased' },
        ]}
        onChange={origin => set({ origin })}
      />
      {intent.origin === 'leased' && (
        <Choice
          label="Family of the leased addresses"
          value={intent.family}
          options={[
            { value: 'IPv4', words: 'IPv4' },
            { value: 'IPv6', words: 'IPv6' },
          ]}
          onChange={family => set({ family })}
        />
      )}
      <div className="grid grid-cols-2 gap-[10px]">
        <TextField
          label="VLAN"
          hint="1 to 4094; empty is untagged"
          error={draft.errorOf('vlan')}
          inputMode="numeric"
          value={intent.vlan ?? ''}
          isMono
          onChange={value => set({ vlan: value.trim() === '' ? null : Math.round(Number(value) || 0) })}
        />
        <TextField
          label="MTU"
          hint="bytes; large frames are 9000"
          error={draft.errorOf('mtu')}
          inputMode="numeric"
          value={intent.mtu}
          isMono
          onChange={value => set({ mtu: Math.round(Number(value) || 0) })}
        />
      </div>
      <span className="label">Nodes</span>
      {draft.errorOf('nodes') !== undefined && <Trouble>{draft.errorOf('nodes')}</Trouble>}
      <table className="plain">
        <thead>
          <tr>
            <th>Node</th>
            <th>Port</th>
            {intent.origin === 'static' && <th>Address with subnet</th>}
            <th />
          </tr>
        </thead>
        <tbody>
          {intent.nodes.map((each, index) => {
            const node = nodes.find(own => own.id === each.nodeId)
            const port = nodePorts.find(own => own.id === each.portId)
            const address = readAddress(each.address)?.address
            const trouble =
              node?.hostName == null || address === undefined || intent.origin === 'leased'
                ? null
                : nameTrouble(node.hostName, address, names)
            return (
              <tr key={each.nodeId}>
                <td className="whitespace-nowrap">{node?.name}</td>
                <td>
                  <Select
                    className="h-[26px] py-0"
                    aria-label={`Port of ${node?.name ?? ''}`}
                    value={each.portId}
                    options={nodePorts
                      .filter(own => own.nodeId === each.nodeId)
                      .map(own => ({ value: own.id, words: portWords(own) }))}
                    onChange={portId => change(each.nodeId, { portId })}
                  />
                  {port !== undefined && port.traffic.length > 0 && (
                    <div className="hint">
                      with {port.traffic.join(' and ')}: {(storageShare(port.traffic) * 100).toFixed(0)}% when all are
                      busy
                    </div>
                  )}
                </td>
                {intent.origin === 'static' && (
                  <td>
                    <input
                      className="field mono h-[26px]"
                      aria-label={`Address of ${node?.name ?? ''}`}
                      value={each.address}
                      placeholder={plan?.suggestions?.[each.nodeId] ?? (index === 0 ? '10.20.30.11/24' : '')}
                      spellCheck={false}
                      onChange={event => change(each.nodeId, { address: event.target.value })}
                    />
                    {typeof trouble === 'string' && <Trouble gravity="soon">{trouble}</Trouble>}
                    {trouble === undefined && <Trouble gravity="fine">names agree</Trouble>}
                  </td>
                )}
                <td>
                  {intent.nodes.length > 1 && (
                    <button
                      type="button"
                      className="border-0 bg-transparent p-0 text-faint"
                      aria-label={`Leave out ${node?.name ?? ''}`}
                      onClick={() => leaveOut(each.nodeId)}
                    >
                      <X aria-hidden size={14} />
                    </button>
                  )}
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
      {intent.origin === 'static' && canFill && (
        <button type="button" className="button quiet mt-2" onClick={fillIn}>
          Fill in the addresses that follow the first
        </button>
      )}
    </DraftFrame>
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
