import { forgetSystemIntent, type ForgetSystemIntent as Intent } from '@/core/intents'
import { type Estate, those } from '@/core/estate'
import type { Plan, PlanCheck, Effect } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { advise, rule, there } from '../../parts/checks'
import { outlined, type Outlined } from '../../parts/outline'
import { lookInto } from '../../parts/look'

type Step = Readonly<{ step: 'forget'; systemId: string }>

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const system = look.one('systems', intent.systemId)
  const pools = estate.pools.filter(pool => pool.systemId === system?.id)
  const held = estate.volumes.filter(volume => volume.systemId === system?.id && volume.state === 'holding')
  const claims = system === undefined ? [] : [system.id, ...pools.map(pool => pool.id)]
  return { claims, estate, held, intent, look, pools, system }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { claims, look, system } = seen

  return outlined<Step>(estate, {
    title: `Take ${system?.name ?? 'a system'} out of the estate`,
    checks: checksOf(seen),
    effects: effectsOf(seen),
    oneWay: [],
    undo: { possible: false, how: 'Nothing is changed on the system; it can be registered again.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims,
    proof:
      'The estate is read again: it no longer holds the system or anything of it. The changes made to it are kept.',
  })
}

function checksOf({ held, pools, system }: Seen): readonly PlanCheck[] {
  return [
    there('system', system, system => `${system.name} is in the estate.`, 'The system is not in the estate.'),
    rule(
      'nothing-held',
      held.length === 0,
      'No volume of it is in holding.',
      `${held.map(volume => volume.name).join(', ')} in holding would never be deleted.`,
      {
        remedy: 'Wait until their holding is over, or bring them back.',
      },
    ),
    advise(
      'unused',
      pools.length === 0,
      'It has no pools.',
      `${pools.map(pool => pool.name).join(', ')} will no longer be watched. Hosts go on using what is mapped.`,
    ),
  ]
}

function effectsOf({ estate }: Seen): readonly Effect[] {
  return [
    {
      figure: 'systems',
      label: 'Systems in the estate',
      unit: 'count',
      before: estate.systems.length,
      after: estate.systems.length - 1,
    },
  ]
}

function stepsOf({ intent }: Seen): Outlined<Step>[] {
  return [
    {
      words: 'Take it and what it has out of the records',
      seconds: 0.2,
      step: { step: 'forget', systemId: intent.systemId },
    },
  ]
}

export const forgetSystem: ChangeKind<Intent, Step> = {
  ...forgetSystemIntent,
  needs: () => [],
  needsAlso: (estate, { systemId }) => [
    those('volumes', 'poolId', ...estate.pools.filter(pool => pool.systemId === systemId).map(pool => pool.id)),
  ],
  plan,
  async runStep(step, _context, ports) {
    await ports.records.forgetSystem(step.systemId)
    return {}
  },
  undoStep: async () => 'The system is out of the estate; nothing on it has been changed.',
  async prove(intent, _plan, _facts, ports) {
    const estate = await ports.estate()
    const left = [...estate.systems, ...estate.pools].filter(
      each => each.id === intent.systemId || ('systemId' in each && each.systemId === intent.systemId),
    )
    return [
      {
        claim: 'Nothing of the system is in the records',
        holds: left.length === 0,
        measured: { left: `${left.length}` },
      },
    ]
  },
  collects: () => [],
  reverse: () => undefined,
}
