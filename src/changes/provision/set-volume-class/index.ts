import { byId, those, type Estate } from '@/core/estate'
import { setVolumeClassIntent, type SetVolumeClassIntent as Intent } from '@/core/intents'
import type { Effect, Plan, PlanCheck } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { rule } from '../../parts/checks'
import { allInUse, namedTogether } from '../../parts/inUse'
import { firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'
import { brokenPromises } from '../../parts/promiseChecks'

type Step = Readonly<{ step: 'set'; classId: string | null; before: Readonly<Record<string, string | null>> }>

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volumes = look.some('volumes', intent.volumeIds)
  const serviceClass = look.one('serviceClasses', intent.classId)
  const what = namedTogether(volumes)
  const words = `Put ${what} under ${serviceClass?.name ?? 'no class'}`
  return { estate, intent, look, serviceClass, volumes, words }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent, now: Date): Plan<Step> {
  const seen = see(estate, intent)
  const { look, serviceClass, volumes, words } = seen
  return outlined<Step>(estate, {
    title: words,
    checks: checksOf(seen, now),
    effects: effectsOf(seen),
    undo: { possible: true, how: 'They can be put under their old classes again.' },
    steps:
      volumes.length === 0
        ? []
        : [
            {
              words,
              seconds: 0.1,
              step: {
                step: 'set',
                classId: serviceClass?.id ?? null,
                before: Object.fromEntries(volumes.map(each => [each.id, each.classId])),
              },
            },
          ],
    reads: look.reads,
    claims: volumes.map(({ id }) => id),
    proof: 'The records are read again.',
  })
}

function checksOf({ estate, intent, serviceClass, volumes }: Seen, now: Date): readonly PlanCheck[] {
  return [
    allInUse(volumes, intent.volumeIds.length),
    rule(
      'class',
      intent.classId === '' || serviceClass !== undefined,
      'The class is there.',
      'The class is not there any more.',
      { field: 'classId' },
    ),
    rule(
      'other',
      volumes.some(each => each.classId !== (serviceClass?.id ?? null)),
      'It is another class than they are under.',
      'They are under it already.',
      { field: 'classId' },
    ),
    ...(serviceClass === undefined ? [] : brokenPromises(estate, volumes, serviceClass, now)),
  ]
}

function effectsOf({ estate, serviceClass, volumes }: Seen): readonly Effect[] {
  const names = volumes.map(each => byId(estate.serviceClasses, each.classId)?.name ?? 'none')
  return [
    {
      figure: 'class',
      label: 'Service class',
      unit: 'words',
      before: [...new Set(names)].join(', '),
      after: serviceClass?.name ?? 'none',
    },
    {
      figure: 'snapshots',
      label: 'Snapshots',
      unit: 'words',
      before: null,
      after: serviceClass?.snapshotRule ?? 'none by a schedule',
    },
  ]
}

export const setVolumeClass: ChangeKind<Intent, Step> = {
  ...setVolumeClassIntent,
  needs: ({ volumeIds }) => [those('volumes', 'id', ...volumeIds)],
  plan,
  async runStep(step, _context, ports) {
    await ports.records.setClass(Object.keys(step.before), step.classId)
    return {}
  },
  async undoStep(step, _context, ports) {
    for (const [id, classId] of Object.entries(step.before)) await ports.records.setClass([id], classId)
    return undefined
  },
  async prove(_intent, plan, _facts, ports) {
    const { classId, before } = firstStep(plan)
    const { volumes } = await ports.estate()
    const under = volumes.filter(each => each.id in before && each.classId === classId).length
    const asked = Object.keys(before).length
    return [
      {
        claim: 'All of them are under it',
        holds: under === asked,
        measured: { underIt: `${under}`, asked: `${asked}` },
      },
    ]
  },
  collects: () => [],
  reverse: () => undefined,
}
