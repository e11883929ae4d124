'use client'
import type { Node, SwitchPort } from '@/core/estate'
import type { SetNodeClockIntent, SetRestartServiceIntent, SetSwitchPortIntent } from '@/core/intents'
import type { ShownChange } from '@/core/views'
import { IntentForm } from '../../drafts/IntentForm'

interface Kept {
  readonly systemId: string
  readonly kept: ShownChange | undefined
}

interface SetSwitchPortProps extends Kept {
  readonly port: SwitchPort
  readonly name: string
  readonly mtu: number | undefined
}

export const SetSwitchPort = ({ systemId, port, name, mtu, kept }: SetSwitchPortProps) => (
  <IntentForm<SetSwitchPortIntent>
    kind="set-switch-port"
    title={`Set ${name}`}
    begin={{ systemId, switchPortId: port.id, mtu: mtu ?? port.mtu, vlans: [...port.vlans] }}
    kept={kept}
  >
    <p className="mt-0 text-second">Its MTU is {port.mtu} now.</p>
  </IntentForm>
)

export const SetNodeClock = ({ systemId, node, kept }: Kept & { readonly node: Node }) => (
  <IntentForm<SetNodeClockIntent>
    kind="set-node-clock"
    title={`Set the clock of ${node.name}`}
    begin={{ systemId, nodeId: node.id }}
    kept={kept}
  >
    <p>
      It is {Math.abs(node.clockOffsetSeconds).toFixed(1)} s {node.clockOffsetSeconds > 0 ? 'ahead of' : 'behind'} the
      row now. It will take its time from the row from then on.
    </p>
  </IntentForm>
)

export const SetRestartService = ({ systemId, nodes, kept }: Kept & { readonly nodes: readonly Node[] }) => (
  <IntentForm<SetRestartServiceIntent>
    kind="set-restart-service"
    title={`Restart service in ${nodes.map(node => node.name).join(', ')}`}
    begin={{ systemId, nodeIds: nodes.map(node => node.id), isOn: true }}
    kept={kept}
  />
)
