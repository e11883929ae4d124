import { setRestartServiceIntent, type SetRestartServiceIntent as Intent } from '@/core/intents'
import { type Estate, within } from '@/core/estate'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { advise, rule } from '../../parts/checks'
import { nodesAnswer, nodesOf, rowChecks, switchRestartService } from '../../parts/nodes'
import { outlined, type Outlined } from '../../parts/outline'
import { lookInto } from '../../parts/look'

interface Step {
  readonly step: 'switch'
  readonly systemId: string
  readonly nodeLocators: readonly string[]
  readonly isOn: boolean
}

export const setRestartService: ChangeKind<Intent, Step> = {
  ...setRestartServiceIntent,
  needs: ({ systemId }) => within(systemId),
  plan,
  async runStep(step, _, ports) {
    await switchRestartService(await ports.of(step.systemId, 'nodes'), step.nodeLocators, step.isOn, ports)
    return {}
  },
  async undoStep(step, _, ports) {
    await switchRestartService(await ports.of(step.systemId, 'nodes'), step.nodeLocators, !step.isOn, ports)
    return undefined
  },
  async prove({ systemId, isOn }, made, _, ports) {
    const nodes = await ports.of(systemId, 'nodes')
    const locators = made.steps[0]?.step.nodeLocators ?? []
    const now = await Promise.all(locators.map(locator => nodes.isRestartServiceOn(locator)))
    return [
      {
        claim: `The restart service is ${isOn ? 'on' : 'off'} in each node`,
        holds: now.length > 0 && now.every(each => each === isOn),
        measured: { nodes: `${now.length}`, asWanted: `${now.filter(each => each === isOn).length}` },
      },
    ]
  },
  collects: ({ systemId }) => [systemId],
  settles: made =>
    made.steps.flatMap(({ step: { systemId, nodeLocators } }) =>
      nodeLocators.map(locator => ({
        kind: 'nodes' as const,
        of: { systemId, locator },
        fields: ['isRestartServiceOn'] as const,
      })),
    ),
  reverse: ({ systemId, nodeIds, isOn }) => ({
    kind: 'set-restart-service',
    intent: { systemId, nodeIds, isOn: !isOn },
  }),
}

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const system = look.one('systems', intent.systemId)
  const nodes = nodesOf(estate, intent.nodeIds)
  const words = intent.isOn ? 'on' : 'off'
  look.at('nodes', nodes)
  return { estate, intent, look, nodes, system, words }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { look, nodes, words } = seen

  return outlined<Step>(estate, {
    title: `Switch the restart service ${words} in ${nodes.length === 1 ? (nodes[0]?.name ?? '') : `${nodes.length} nodes`}`,
    checks: checksOf(seen),
    undo: { possible: true, how: 'It can be switched back.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: nodes.map(node => node.id),
    proof: 'Each node is asked again.',
  })
}

function checksOf({ estate, intent, nodes, system }: Seen): readonly PlanCheck[] {
  return [
    ...rowChecks(system, estate.nodes),
    rule('nodes', nodes.length > 0, `${nodes.length} chosen.`, 'Choose nodes.', {
      field: 'nodeIds',
    }),
    nodesAnswer(nodes),
    advise(
      'watched',
      intent.isOn,
      'Services that hang are restarted.',
      'While it is off, nobody restarts services that hang.',
      { field: 'isOn' },
    ),
  ]
}

function stepsOf({ intent, nodes, words }: Seen): Outlined<Step>[] {
  return [
    {
      step: {
        step: 'switch',
        systemId: intent.systemId,
        nodeLocators: nodes.map(node => node.locator),
        isOn: intent.isOn,
      },
      words: `Switch it ${words}`,
      seconds: 0.3 + 0.05 * nodes.length,
    },
  ]
}
