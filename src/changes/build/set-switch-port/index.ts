import { setSwitchPortIntent, type SetSwitchPortIntent as Intent } from '@/core/intents'
import { byId, type Estate, within } from '@/core/estate'
import type { Plan, PlanCheck, Effect } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { advise, must, rule } from '../../parts/checks'
import { rowChecks } from '../../parts/nodes'
import { outlined, type Outlined } from '../../parts/outline'
import { probeEvidence } from '../../parts/probeEvidence'
import { lookInto } from '../../parts/look'
import { firstStep } from '../../parts/known'

interface Setting {
  readonly mtu: number
  readonly vlans: readonly number[]
}
interface Step {
  readonly step: 'set'
  readonly systemId: string
  readonly locator: string
  readonly wanted: Setting
  readonly before: Setting
}

const same = (a: Setting, b: Setting) => a.mtu === b.mtu && [...a.vlans].sort().join() === [...b.vlans].sort().join()

export const setSwitchPort: ChangeKind<Intent, Step> = {
  ...setSwitchPortIntent,
  needs: ({ systemId }) => within(systemId),
  plan,
  async runStep(step, _, ports) {
    const switchPorts = await ports.of(step.systemId, 'switchPorts')
    if (!same(await switchPorts.at(step.locator), step.wanted)) await switchPorts.set(step.locator, step.wanted)
    return {}
  },
  async undoStep(step, _, ports) {
    await (await ports.of(step.systemId, 'switchPorts')).set(step.locator, step.before)
    return undefined
  },
  async prove(intent, made, _, ports) {
    const now = await (await ports.of(intent.systemId, 'switchPorts')).at(firstStep(made).locator)
    await ports.records.collect(intent.systemId)
    const estate = await ports.estate()
    const near = estate.nodePorts.filter(port => port.switchPortId === intent.switchPortId).map(port => port.nodeId)
    // A port between switches serves every node.
    const nodeIds = near.length > 0 ? near : estate.nodes.map(node => node.id)
    return [
      {
        claim: 'The switch port is set as planned',
        holds: same(now, { mtu: intent.mtu, vlans: intent.vlans }),
        measured: { mtu: `${now.mtu}`, vlans: now.vlans.join(', ') },
      },
      ...(await probeEvidence(intent.systemId, ports, nodeIds)),
    ]
  },
  collects: ({ systemId }) => [systemId],
  settles: made => made.steps.map(({ step }) => ({ kind: 'switchPorts', of: step, fields: ['mtu', 'vlans'] })),
  reverse: () => undefined,
}

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const system = look.one('systems', intent.systemId)
  const port = look.one('switchPorts', intent.switchPortId)
  const owner = byId(estate.switches, port?.switchId)
  const name = port === undefined ? 'a switch port' : `${owner?.name ?? 'switch'} port ${port.name}`
  const near = estate.nodePorts.find(each => each.switchPortId === port?.id)
  const isMtu = intent.mtu >= 1280 && intent.mtu <= 9216
  const strange = intent.vlans.filter(vlan => vlan < 1 || vlan > 4094)
  const cutOff = near?.storage?.vlan != null && !intent.vlans.includes(near.storage.vlan)
  return { cutOff, estate, intent, isMtu, look, name, near, port, strange, system }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { look, name, port } = seen

  return outlined<Step>(estate, {
    title: `Set ${name}`,
    checks: checksOf(seen),
    effects: effectsOf(seen),
    undo: { possible: true, how: 'The port can be set back to what it is now.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: port === undefined ? [] : [port.id],
    proof: 'The port is read again, and all pairs of nodes are probed with full frames.',
  })
}

function checksOf({ cutOff, estate, intent, isMtu, name, near, port, strange, system }: Seen): readonly PlanCheck[] {
  return [
    ...rowChecks(system, estate.nodes),
    rule('port', port !== undefined, `${name} is there.`, 'Choose a switch port.', {
      field: 'switchPortId',
    }),
    rule('mtu', isMtu, `MTU ${intent.mtu}.`, 'An MTU is 1280 to 9216 bytes.', { field: 'mtu' }),
    must(
      'vlans',
      strange.length === 0 && intent.vlans.length > 0,
      strange.length === 0
        ? intent.vlans.length === 0
          ? 'The port would carry nothing.'
          : `VLANs ${intent.vlans.join(', ')}.`
        : `${strange.join(', ')} is no VLAN: they go from 1 to 4094.`,
      { field: 'vlans' },
    ),
    advise(
      'node-kept',
      !cutOff,
      'The node behind it stays reachable.',
      `The node behind it uses VLAN ${near?.storage?.vlan ?? ''}, which the port would no longer carry.`,
      { field: 'vlans' },
    ),
  ]
}

function effectsOf({ intent, name, port }: Seen): readonly Effect[] {
  return [
    { figure: 'mtu', label: `MTU of ${name}`, unit: 'count', before: port?.mtu ?? null, after: intent.mtu },
    {
      figure: 'vlans',
      label: 'VLANs',
      unit: 'words',
      before: port?.vlans.join(', ') ?? null,
      after: intent.vlans.join(', '),
    },
  ]
}

function stepsOf({ intent, name, port }: Seen): Outlined<Step>[] {
  if (port === undefined) return []
  return [
    {
      step: {
        step: 'set',
        systemId: intent.systemId,
        locator: port.locator,
        wanted: { mtu: intent.mtu, vlans: intent.vlans },
        before: { mtu: port.mtu ?? 1500, vlans: port.vlans ?? [] },
      },
      words: `Set ${name}`,
      seconds: 0.4,
    },
  ]
}
