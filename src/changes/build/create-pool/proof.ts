import type { CreatePoolIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangePorts } from '@/ports'
import type { Evidence, Facts } from '../../ChangeKind'
import type { Step } from './steps'
import { fact } from '../../parts/known'

/** Holds the pool as its system states it now against what was planned. */
export async function prove(intent: Intent, plan: Plan<Step>, facts: Facts, ports: ChangePorts): Promise<Evidence[]> {
  const pools = await ports.of(intent.systemId, 'pools')
  const pool = await pools.at(fact(facts, 'poolLocator'))
  const create = plan.steps[0]?.step
  const wanted = new Set(create?.step === 'create' ? [...create.groups.flat(), ...create.spares] : [])
  const held = new Set(pool?.driveLocators ?? [])
  const sketch = plan.sketch?.of === 'pool' ? plan.sketch : undefined
  const planned = (sketch?.ladder ?? []).find(rung => rung.name === 'after layout')?.bytes
  return [
    {
      claim: `${intent.name} is ready`,
      holds: pool?.isReady === true,
      measured: { state: pool === undefined ? 'not there' : pool.isReady ? 'ready' : 'starting' },
    },
    {
      claim: 'It holds exactly the chosen drives',
      holds: held.size === wanted.size && [...wanted].every(locator => held.has(locator)),
      measured: { chosen: `${wanted.size}`, held: `${held.size}` },
    },
    {
      claim: 'Its usable space is what was planned',
      holds: pool !== undefined && `${pool.usableBytes}` === planned,
      measured: { plannedBytes: planned ?? 'nothing', statedBytes: `${pool?.usableBytes ?? 'nothing'}` },
    },
  ]
}
