'use client'
import type { Node, SwitchPort } from '@/core/estate'
import type { SetNodeClockIntent, SetRestartServiceIntent, SetSwitchPortIntent } from '@/core/intents'
import type { ChangeRecord } from '@/core/views'
import { DraftFrame } from '../../drafts/DraftFrame'
import { useDraft } from '../../drafts/useDraft'
import { Choice } from '../../parts/Choice'
import { TextField } from '../../parts/TextField'

interface Kept {
  readonly systemId: string
  readonly kept: ChangeRecord | undefined
}

export function SetSwitchPort({
  systemId,
  port,
  name,
  mtu,
  kept,
}: Kept & { readonly port: SwitchPort; readonly name: string; readonly mtu: number | undefined }) {
  const draft = useDraft<SetSwitchPortIntent>(
    'set-switch-port',
    { systemId, switchPortId: port.id, mtu: mtu ?? port.mtu, vlans: [...port.vlans] },
    kept,
  )
  const { intent, set } = draft
  return (
    <DraftFrame title={`Set ${name}`} draft={draft}>
      <TextField
        label="MTU"
        hint={`bytes; it is ${port.mtu} now`}
        error={draft.errorOf('mtu')}
        inputMode="numeric"
        value={intent.mtu}
        isMono
        onChange={value => set({ mtu: Math.round(Number(value) || 0) })}
      />
      <TextField
        label="VLANs"
        hint="numbers with commas"
        error={draft.errorOf('vlans')}
        defaultValue={intent.vlans.join(', ')}
        isMono
        onChange={value =>
          set({
            vlans: value
              .split(',')
              .map(each => Math.round(Number(each.trim()) || 0))
              .filter(vlan => vlan !== 0),
          })
        }
      />
    </DraftFrame>
  )
}

export function SetNodeClock({ systemId, node, kept }: Kept & { readonly node: Node }) {
  const draft = useDraft<SetNodeClockIntent>('set-node-clock', { systemId, nodeId: node.id }, kept)
  return (
    <DraftFrame title={`Set the clock of ${node.name}`} draft={draft}>
      <p>
        It is {Math.abs(node.clockOffsetSeconds).toFixed(1)} s {node.clockOffsetSeconds > 0 ? 'ahead of' : 'behind'} the
        row now. It will take its time from the row from then on.
      </p>
    </DraftFrame>
  )
}

export function SetRestartService({ systemId, nodes, kept }: Kept & { readonly nodes: readonly Node[] }) {
  const draft = useDraft<SetRestartServiceIntent>(
    'set-restart-service',
    { systemId, nodeIds: nodes.map(node => node.id), isOn: true },
    kept,
  )
  return (
    <DraftFrame title="Restart service" draft={draft}>
      <Choice
        label={`In ${nodes.map(node => node.name).join(', ')}`}
        value={draft.intent.isOn ? 'on' : 'off'}
        options={[
          { value: 'on', words: 'on' },
          { value: 'off', words: 'off' },
        ]}
        onChange={value => draft.set({ isOn: value === 'on' })}
      />
    </DraftFrame>
  )
}
