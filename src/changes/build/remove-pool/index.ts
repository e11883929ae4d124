import { removePoolIntent, type RemovePoolIntent as Intent } from '@/core/intents'
import { type Estate, those } from '@/core/estate'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { answers, rule, there } from '../../parts/checks'
import { outlined, type Outlined } from '../../parts/outline'
import { lookInto } from '../../parts/look'
import { fact } from '../../parts/known'

type Step = Readonly<{ step: 'remove'; systemId: string; locator: string; name: string }>

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const pool = look.one('pools', intent.poolId)
  const system = look.one('systems', pool?.systemId ?? intent.systemId)
  const held = estate.volumes.filter(volume => volume.poolId === pool?.id)
  const drives = (pool?.groupSizes ?? []).reduce((sum, size) => sum + size, pool?.spareCount ?? 0)
  const claims = pool === undefined ? [] : [pool.id]
  return { claims, drives, held, look, pool, system }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { claims, drives, look, pool } = seen

  return outlined<Step>(estate, {
    title: `Remove pool ${pool?.name ?? '…'}`,
    checks: checksOf(seen),
    effects: [{ figure: 'unassigned', label: 'Drives that become free', unit: 'count', before: 0, after: drives }],
    oneWay: ['A removed pool cannot be brought back; it is empty, so no data goes with it.'],
    undo: { possible: false, how: 'It can be created anew from the same drives.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims,
    proof: 'The system is asked for the pool again: it must be gone.',
  })
}

function checksOf({ held, pool, system }: Seen): readonly PlanCheck[] {
  return [
    there('pool', pool, pool => `${pool.name} is there.`, 'The pool is gone.'),
    ...(system === undefined ? [] : [answers(system)]),
    rule(
      'empty',
      held.length === 0,
      'It holds no volumes.',
      `It holds ${held.length} volumes, in holding or in use: ${held
        .slice(0, 3)
        .map(volume => volume.name)
        .join(', ')}${held.length > 3 ? ' …' : ''}.`,
      { remedy: 'Remove them first; those in holding go when their time is over.' },
    ),
  ]
}

function stepsOf({ pool, system }: Seen): Outlined<Step>[] {
  if (pool === undefined || system === undefined) return []
  return [
    {
      words: 'Remove it and free its drives',
      seconds: 1,
      step: { step: 'remove', systemId: system.id, locator: pool.locator, name: pool.name },
    },
  ]
}

export const removePool: ChangeKind<Intent, Step> = {
  ...removePoolIntent,
  needs: ({ poolId }) => [those('volumes', 'poolId', poolId)],
  plan,
  async runStep(step, _context, ports) {
    await (await ports.of(step.systemId, 'pools')).remove(step.locator, step.name)
    await ports.records.collect(step.systemId)
    await ports.records.gone(step.systemId, [step.locator])
    return { poolLocator: step.locator }
  },
  undoStep: async () => 'The pool has been removed.',
  async prove(intent, _plan, facts, ports) {
    const pool = await (await ports.of(intent.systemId, 'pools')).at(fact(facts, 'poolLocator'))
    return [{ claim: 'The pool is gone', holds: pool === undefined, measured: { stated: pool?.name ?? 'nothing' } }]
  },
  collects: ({ systemId }) => [systemId],
  reverse: () => undefined,
}
