import { setNodeClockIntent, type SetNodeClockIntent as Intent } from '@/core/intents'
import { type Estate, within } from '@/core/estate'
import { clockToleranceSeconds } from '@/core/findings'
import type { Plan, PlanCheck, Effect } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { there } from '../../parts/checks'
import { nodesAnswer, rowChecks } from '../../parts/nodes'
import { outlined, type Outlined } from '../../parts/outline'
import { lookInto } from '../../parts/look'
import { firstStep } from '../../parts/known'

interface Step {
  readonly step: 'set'
  readonly systemId: string
  readonly nodeLocator: string
}
export const setNodeClock: ChangeKind<Intent, Step> = {
  ...setNodeClockIntent,
  needs: ({ systemId }) => within(systemId),
  plan,
  async runStep({ systemId, nodeLocator }, _, ports) {
    await (await ports.of(systemId, 'nodes')).followRowTime(nodeLocator)
    return {}
  },
  undoStep: () => Promise.resolve('The clock stays as it was set: the time before was wrong.'),
  async prove({ systemId }, made, _, ports) {
    const offset = await (await ports.of(systemId, 'nodes')).clockOffsetSeconds(firstStep(made).nodeLocator)
    return [
      {
        claim: `The clock is within ${clockToleranceSeconds} s of the row's`,
        holds: Math.abs(offset) <= clockToleranceSeconds,
        measured: { offsetSeconds: offset.toFixed(1) },
      },
    ]
  },
  collects: ({ systemId }) => [systemId],
  reverse: () => undefined,
}

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const system = look.one('systems', intent.systemId)
  const node = look.one('nodes', intent.nodeId)
  return { estate, intent, look, node, system }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { look, node } = seen

  return outlined<Step>(estate, {
    title: `Set the clock of ${node?.name ?? 'a node'}`,
    checks: checksOf(seen),
    effects: effectsOf(seen),
    oneWay: ['What the node has logged keeps the wrong times.'],
    undo: { possible: false, how: 'A clock that was set is not set back.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: node === undefined ? [] : [node.id],
    proof: "The node's time is read again beside the row's.",
  })
}

function checksOf({ estate, node, system }: Seen): readonly PlanCheck[] {
  return [
    ...rowChecks(system, estate.nodes),
    there('node', node, node => `${node.name} is there.`, 'Choose a node.', {
      field: 'nodeId',
    }),
    nodesAnswer(node === undefined ? [] : [node]),
  ]
}

function effectsOf({ node }: Seen): readonly Effect[] {
  return [
    {
      figure: 'offset',
      label: 'Clock less the row’s',
      unit: 'words',
      before: `${(node?.clockOffsetSeconds ?? 0).toFixed(1)} s`,
      after: 'about 0 s',
    },
  ]
}

function stepsOf({ intent, node }: Seen): Outlined<Step>[] {
  if (node === undefined) return []
  return [
    {
      step: { step: 'set', systemId: intent.systemId, nodeLocator: node.locator },
      words: `Let ${node.name ?? 'the node'} take its time from the row`,
      seconds: 0.4,
    },
  ]
}
