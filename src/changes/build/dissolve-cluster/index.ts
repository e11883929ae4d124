import { dissolveClusterIntent, type DissolveClusterIntent as Intent } from '@/core/intents'
import { type Estate, within } from '@/core/estate'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { rule } from '../../parts/checks'
import { rowChecks } from '../../parts/nodes'
import { outlined, type Outlined } from '../../parts/outline'
import { lookInto } from '../../parts/look'

interface Step {
  readonly step: 'dissolve'
  readonly systemId: string
  readonly name: string
}

export const dissolveCluster: ChangeKind<Intent, Step> = {
  ...dissolveClusterIntent,
  needs: ({ systemId }) => within(systemId),
  plan,
  async runStep({ systemId, name }, _, ports) {
    await (await ports.of(systemId, 'clusters')).dissolve(name)
    return {}
  },
  undoStep: () => Promise.resolve('The cluster stays dissolved; its nodes can form another.'),
  async prove({ systemId }, _, __, ports) {
    const found = await (await ports.of(systemId, 'clusters')).now()
    return [
      { claim: 'The nodes are single again', holds: found === undefined, measured: { cluster: found?.name ?? 'none' } },
    ]
  },
  collects: ({ systemId }) => [systemId],
  reverse: () => undefined,
}

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const system = look.one('systems', intent.systemId)
  const pools = estate.pools.filter(pool => pool.systemId === intent.systemId)
  const name = system?.clusterName ?? null
  return { estate, intent, look, name, pools, system }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { look, name } = seen

  return outlined<Step>(estate, {
    title: `Dissolve cluster ${name ?? '…'}`,
    checks: checksOf(seen),
    undo: { possible: false, how: 'The nodes can be formed into a cluster again.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: [`cluster:${intent.systemId}`],
    proof: 'The system is asked for its cluster again: there is none.',
  })
}

function checksOf({ estate, intent, name, pools, system }: Seen): readonly PlanCheck[] {
  return [
    ...rowChecks(system, estate.nodes),
    rule('cluster', name !== null, `They form ${name}.`, 'The nodes form no cluster.'),
    rule('no-pools', pools.length === 0, 'It holds no pool.', `It holds ${pools.map(pool => pool.name).join(', ')}.`, {
      remedy: 'Remove its pools first.',
    }),
    rule('typed-name', intent.typedName === name, 'The name is right.', `Type the cluster's name, ${name ?? ''}.`, {
      field: 'typedName',
    }),
  ]
}

function stepsOf({ intent, name }: Seen): Outlined<Step>[] {
  if (name == null) return []
  return [
    {
      step: { step: 'dissolve', systemId: intent.systemId, name },
      words: 'Let the nodes go',
      seconds: 0.4,
    },
  ]
}
