import { those, type Estate } from '@/core/estate'
import { formConsistencyGroupIntent, type FormConsistencyGroupIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import { countWords } from '@/core/units'
import type { ChangeKind } from '../../ChangeKind'
import { answers, rule } from '../../parts/checks'
import { form, groupNameChecks, unform, type FormStep as Step } from '../../parts/consistency'
import { fact, firstStep, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

const least = 2

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volumes = look.some('volumes', intent.volumeIds)
  const system = look.one('systems', volumes[0]?.systemId)
  return { estate, intent, look, system, volumes }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { look, system, volumes } = seen
  const words = `Put ${countWords(volumes.length, 'volume', 'volumes')} into ${intent.name || 'a consistency group'}`
  return outlined<Step>(estate, {
    title: words,
    checks: checksOf(seen),
    effects: [
      {
        figure: 'instant',
        label: 'Their snapshots hold',
        unit: 'words',
        before: 'each an instant of its own',
        after: 'one instant',
      },
    ],
    undo: { possible: true, how: 'The group can be dissolved; the volumes stay.' },
    steps:
      system === undefined
        ? []
        : [
            {
              words,
              seconds: 0.3,
              step: {
                step: 'form',
                systemId: system.id,
                name: intent.name,
                volumeLocators: volumes.map(each => each.locator),
              },
            },
          ],
    reads: look.reads,
    claims: volumes.map(({ id }) => id),
    proof: 'The system is asked for the group again: it must have these volumes and no other.',
  })
}

function checksOf({ estate, intent, system, volumes }: Seen): readonly PlanCheck[] {
  const taken = volumes.filter(each => each.consistencyGroupId !== null)
  return [
    rule(
      'volumes',
      volumes.length >= least && volumes.length === intent.volumeIds.length && volumes.every(isInUse),
      `${countWords(volumes.length, 'volume', 'volumes')} in use.`,
      volumes.length < least
        ? 'Choose at least two volumes: what belongs to one application.'
        : 'Some of them are in holding, or not there any more.',
    ),
    rule(
      'one-system',
      new Set(volumes.map(each => each.systemId)).size <= 1,
      'All of them are on one system.',
      'They are on several systems: none of them could stop the others for one instant.',
      { remedy: 'Choose volumes of one system, or move them to one.' },
    ),
    rule(
      'in-no-other',
      taken.length === 0,
      'None of them is in another group.',
      `${taken.map(({ name }) => name).join(', ')} ${taken.length === 1 ? 'is' : 'are'} in another group.`,
      { remedy: 'Dissolve that group first.' },
    ),
    ...groupNameChecks(estate, system?.id, intent.name),
    ...(system === undefined ? [] : [answers(system)]),
  ]
}

const isInUse = ({ state }: { readonly state: string }) => state === 'in use'

export const formConsistencyGroup: ChangeKind<Intent, Step> = {
  ...formConsistencyGroupIntent,
  needs: ({ volumeIds, name }) => [those('volumes', 'id', ...volumeIds), those('consistencyGroups', 'name', name)],
  plan,
  runStep: (step, { key }, ports) => form(step, key, ports),
  undoStep: (step, { key }, ports) => unform(step, key, ports),
  async prove(_intent, plan, facts, ports) {
    const step = firstStep(plan)
    const seen = await (await ports.of(step.systemId, 'consistencyGroups')).at(fact(facts, 'groupLocator'))
    const asked = new Set(step.volumeLocators)
    const stated = seen?.volumeLocators ?? []
    return [
      {
        claim: 'The system states the group with these volumes and no other',
        holds: seen?.name === step.name && stated.length === asked.size && stated.every(each => asked.has(each)),
        measured: { name: seen?.name ?? 'nothing', asked: `${asked.size}`, stated: `${stated.length}` },
      },
    ]
  },
  collects: itsSystem,
  reverse: (_intent, facts) =>
    facts['consistencyGroupId'] === undefined
      ? undefined
      : { kind: 'dissolve-consistency-group', intent: { consistencyGroupId: facts['consistencyGroupId'] } },
}
