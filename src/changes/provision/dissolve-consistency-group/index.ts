import { one, those, type ConsistencyGroup, type Estate, type Volume } from '@/core/estate'
import { dissolveConsistencyGroupIntent, type DissolveConsistencyGroupIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import { countWords } from '@/core/units'
import type { ChangeKind } from '../../ChangeKind'
import { answers, there } from '../../parts/checks'
import { firstStep, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined, type Outlined } from '../../parts/outline'

type Step = Readonly<{
  step: 'dissolve'
  systemId: string
  locator: string
  name: string
  volumeIds: readonly string[]
}>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const group = look.one('consistencyGroups', intent.consistencyGroupId)
  const system = look.one('systems', group?.systemId)
  const volumes = estate.volumes.filter(each => each.consistencyGroupId === group?.id)
  const words = `Dissolve ${group?.name ?? 'a consistency group'}`
  return outlined<Step>(estate, {
    title: words,
    checks: [
      there('group', group, each => `${each.name} is there.`, 'The group is not there any more.'),
      ...(system === undefined ? [] : [answers(system)]),
    ],
    effects: [
      {
        figure: 'instant',
        label: `Snapshots of its ${countWords(volumes.length, 'volume', 'volumes')} hold`,
        unit: 'words',
        before: 'one instant',
        after: 'each an instant of its own',
      },
    ],
    undo: { possible: true, how: 'It can be formed again of the same volumes.' },
    steps: stepsOf(group, volumes, words),
    reads: look.reads,
    claims: group === undefined ? [] : [group.id, ...volumes.map(({ id }) => id)],
    proof: 'The system is asked for the group again: it must be gone.',
  })
}

const stepsOf = (
  group: ConsistencyGroup | undefined,
  volumes: readonly Volume[],
  words: string,
): readonly Outlined<Step>[] =>
  group === undefined
    ? []
    : [
        {
          words,
          seconds: 0.3,
          step: {
            step: 'dissolve',
            systemId: group.systemId,
            locator: group.locator,
            name: group.name,
            volumeIds: volumes.map(({ id }) => id),
          },
        },
      ]

export const dissolveConsistencyGroup: ChangeKind<Intent, Step> = {
  ...dissolveConsistencyGroupIntent,
  needs: ({ consistencyGroupId }) => [
    one('consistencyGroups', consistencyGroupId),
    those('volumes', 'consistencyGroupId', consistencyGroupId),
  ],
  plan,
  async runStep({ systemId, locator, name, volumeIds }, _context, ports) {
    await (await ports.of(systemId, 'consistencyGroups')).dissolve(locator, name)
    await ports.records.collect(systemId)
    await ports.records.gone(systemId, [locator])
    return { systemId, name, volumeIds: JSON.stringify(volumeIds) }
  },
  undoStep: () => Promise.resolve('The group is dissolved; it can be formed again of the same volumes.'),
  async prove(_intent, plan, _facts, ports) {
    const { systemId, locator, name } = firstStep(plan)
    const seen = await (await ports.of(systemId, 'consistencyGroups')).at(locator)
    return [
      {
        claim: 'The system states the group no longer',
        holds: seen?.name !== name,
        measured: { at: locator, stands: seen?.name ?? 'nothing' },
      },
    ]
  },
  collects: itsSystem,
  reverse: (_intent, facts) =>
    facts['volumeIds'] === undefined || facts['name'] === undefined
      ? undefined
      : {
          kind: 'form-consistency-group',
          intent: { volumeIds: JSON.parse(facts['volumeIds']) as string[], name: facts['name'] },
        },
}
