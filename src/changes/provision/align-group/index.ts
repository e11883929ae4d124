import { alignGroupIntent, type AlignGroupIntent as Intent } from '@/core/intents'
import { byId, canBeAsked, one, those, type Estate } from '@/core/estate'
import type { Plan, PlanCheck } from '@/core/plan'
import { countWords } from '@/core/units'
import type { ChangePorts } from '@/ports'
import type { ChangeKind, Evidence } from '../../ChangeKind'
import { answers, must, rule } from '../../parts/checks'
import { lookFrom } from '../../parts/hostProof'
import { firstStep, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { initiatorsOf } from '../../parts/mapping'
import { outlined } from '../../parts/outline'
import { askedToProve } from '../../parts/signIn'

type Step = Readonly<{
  step: 'align'
  systemId: string
  groupName: string
  /** Something that is shown to the group already: naming it again lets its hosts in. */
  shownLocator: string
  shownNaa: string
  isReadOnly: boolean
  initiators: readonly string[]
}>

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const system = look.one('systems', intent.systemId)
  const group = look.one('hostGroups', intent.hostGroupId)
  const initiators = initiatorsOf(estate, group)
  const letIn = new Set(system?.accessGroups.find(({ name }) => name === group?.name)?.initiators ?? [])
  const mapping = estate.mappings.find(each => each.systemId === system?.id && each.hostGroupId === group?.id)
  const volume = byId(estate.volumes, mapping?.volumeId ?? undefined)
  const snapshot = byId(estate.snapshots, mapping?.snapshotId ?? undefined)
  return {
    ...{ estate, group, initiators, look, system },
    lacking: initiators.filter(each => !letIn.has(each)),
    shown: volume ?? snapshot,
    isReadOnly: volume === undefined,
  }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { group, initiators, isReadOnly, lacking, look, shown, system } = seen
  const names = [group?.name ?? 'the group', system?.name ?? 'the system'] as const
  return outlined<Step>(estate, {
    title: `Let all hosts of ${names[0]} in on ${names[1]}`,
    checks: checksOf(seen),
    effects: [
      {
        ...{ figure: 'initiators', label: `Of its initiators let in by ${names[1]}`, unit: 'count' },
        ...{ before: initiators.length - lacking.length, after: initiators.length },
      },
    ],
    oneWay: ['Who is let in sees all that the group is shown there.'],
    undo: { possible: false, how: 'Who was let in is taken out again on the system itself.' },
    steps:
      shown === undefined || system === undefined || group === undefined
        ? []
        : [
            {
              words: `Let ${countWords(lacking.length, 'initiator', 'initiators')} in`,
              seconds: 0.5,
              step: {
                ...{ step: 'align', systemId: system.id, groupName: group.name, initiators, isReadOnly },
                ...{ shownLocator: shown.locator, shownNaa: shown.naa },
              },
            },
          ],
    reads: look.reads,
    claims: [`${system?.id ?? ''}/${group?.id ?? ''}`],
    proof: 'The system is asked whom the group has; every host of it with an agent must see what the group is shown.',
  })
}

const checksOf = ({ group, initiators, lacking, shown, system }: Seen): readonly PlanCheck[] => [
  must('system', system !== undefined, system === undefined ? 'Choose the system.' : `${system.name} is there.`, {
    field: 'systemId',
  }),
  ...(system === undefined ? [] : [answers(system)]),
  must('host-group', group !== undefined, group === undefined ? 'Choose the host group.' : `${group.name} is there.`, {
    field: 'hostGroupId',
  }),
  rule(
    'shown',
    shown !== undefined || system === undefined || group === undefined,
    'The system shows something to the group.',
    'The system shows nothing to the group: there is nobody to let in.',
    { field: 'hostGroupId', remedy: 'Map a volume to it.' },
  ),
  rule(
    'lacking',
    lacking.length > 0 || initiators.length === 0,
    `${countWords(lacking.length, 'initiator is', 'initiators are')} not let in yet.`,
    'All of its initiators are let in already.',
  ),
  rule(
    'initiators',
    initiators.length > 0 || group === undefined,
    'Its hosts can log in.',
    'None of its hosts has an initiator.',
  ),
]

async function align(step: Step, key: string, ports: ChangePorts) {
  await askedToProve(ports, step.systemId, step.initiators)
  const mappings = await ports.of(step.systemId, 'mappings')
  await mappings.make(step.shownLocator, step.groupName, step.initiators, key, step.isReadOnly)
  return { systemId: step.systemId }
}

async function prove({ hostGroupId }: Intent, made: Plan<Step>, ports: ChangePorts): Promise<Evidence[]> {
  const step = firstStep(made)
  const mappings = await ports.of(step.systemId, 'mappings')
  const now = new Set(await mappings.initiatorsOf(step.groupName))
  const lacking = step.initiators.filter(each => !now.has(each))
  const stated: Evidence = {
    claim: `The system has all of them in ${step.groupName}`,
    holds: lacking.length === 0 && step.initiators.length > 0,
    measured: {
      letIn: `${step.initiators.length - lacking.length} of ${step.initiators.length}`,
      lacking: lacking.join(', '),
    },
  }
  const targets = await mappings.targets()
  const hosts = (await ports.estate()).hosts.filter(canBeAsked).filter(each => each.hostGroupId === hostGroupId)
  const seen = await Promise.all(
    hosts.map(async host => {
      const { device } = await lookFrom(ports, host, targets, step.shownNaa)
      return {
        claim: `${host.name} sees what the group is shown`,
        holds: device !== undefined,
        measured: { wwn: step.shownNaa, path: device?.path ?? 'nothing' },
      }
    }),
  )
  return [stated, ...seen]
}

/** Has the group of a system follow the hosts that are in it: one that joined later is let in. */
export const alignGroup: ChangeKind<Intent, Step> = {
  ...alignGroupIntent,
  needs: ({ hostGroupId }) => [those('mappings', 'hostGroupId', hostGroupId)],
  needsAlso: ({ mappings }, { systemId }) => {
    const own = mappings.find(each => each.systemId === systemId)
    return [one('volumes', own?.volumeId ?? undefined), one('snapshots', own?.snapshotId ?? undefined)]
  },
  plan,
  runStep: (step, { key }, ports) => align(step, key, ports),
  undoStep: async step => `Who was let in stays in ${step.groupName}.`,
  prove: (intent, made, _facts, ports) => prove(intent, made, ports),
  collects: itsSystem,
  reverse: () => undefined,
}
