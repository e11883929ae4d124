'use client'
import type { Node, SwitchPort } from '@/core/estate'
import type { SetNodeClockIntent, SetRestartServiceIntent, SetSwitchPortIntent } from '@/core/intents'
import type { ChangeRecord } from '@/core/views'
import { DraftFrame } from '../drafts/DraftFrame'
import { useDraft } from '../drafts/useDraft'
import { Choice } from '../parts/Choice'
import { Field } from '../parts/Field'

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
      <Field label="MTU" hint={`bytes; it is ${port.mtu} now`} error={draft.errorOf('mtu')}>
        {props => (
          <input
            {...props}
            className="field mono"
            inputMode="numeric"
            value={intent.mtu}
            onChange={event => set({ mtu: Math.round(Number(event.target.value) || 0) })}
          />
        )}
      </Field>
      <Field label="VLANs" hint="numbers with commas" error={draft.errorOf('vlans')}>
        {props => (
          <input
            {...props}
            className="field mono"
            defaultValue={intent.vlans.join(', ')}
            onChange={event =>
              set({
                vlans: event.target.value
                  .split(',')
                  .map(each => Math.round(Number(each.trim()) || 0))
                  .filter(vlan => vlan !== 0),
              })
            }
          />
        )}
      </Field>
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
