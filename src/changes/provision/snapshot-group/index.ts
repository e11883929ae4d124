import { one, nameCheck, those, type Estate } from '@/core/estate'
import { snapshotGroupIntent, type SnapshotGroupIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import { momentWord } from '@/core/snapshots'
import { countWords } from '@/core/units'
import type { ChangePorts, ConsistencyGroups } from '@/ports'
import type { ChangeKind, Evidence, Facts } from '../../ChangeKind'
import { answers, rule, there } from '../../parts/checks'
import { firstStep, found, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'
import { waitForTask } from '../../parts/waitForTask'

type Step = Readonly<{
  step: 'take'
  systemId: string
  groupLocator: string
  groupName: string
  name: string
  reason: string
  volumeLocators: readonly string[]
}>

/** For what has been acknowledged to reach the drives. */
const flushSeconds = 1.2

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const group = look.one('consistencyGroups', intent.consistencyGroupId)
  const system = look.one('systems', group?.systemId)
  const volumes = estate.volumes.filter(each => each.consistencyGroupId === group?.id)
  look.at('volumes', volumes)
  return { estate, group, intent, look, system, volumes }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent, now: Date): Plan<Step> {
  const seen = see(estate, intent)
  const { group, look, volumes } = seen
  const words = `Snapshots of ${countWords(volumes.length, 'volume', 'volumes')} of ${group?.name ?? 'a group'} at one instant`
  return outlined<Step>(estate, {
    title: words,
    checks: checksOf(seen),
    effects: volumes.map(volume => ({
      figure: `snapshot/${volume.id}`,
      label: `New of ${volume.name}`,
      unit: 'words' as const,
      before: null,
      after: `${volume.name}.${intent.name}`,
    })),
    undo: { possible: true, how: 'They can be removed again.' },
    steps:
      group === undefined
        ? []
        : [
            {
              words: `Take ${intent.name} of all of them`,
              seconds: flushSeconds,
              step: {
                step: 'take',
                systemId: group.systemId,
                groupLocator: group.locator,
                groupName: group.name,
                name: intent.name,
                reason: intent.reason,
                volumeLocators: volumes.map(({ locator }) => locator),
              },
            },
          ],
    reads: look.reads,
    claims: [...(group === undefined ? [] : [group.id]), ...volumes.map(({ id }) => id)],
    proof: 'The system is asked for them again: one of each volume, all consistent, and all of the same instant.',
    suggestions: { name: momentWord(now) },
  })
}

function checksOf({ estate, group, intent, system, volumes }: Seen): readonly PlanCheck[] {
  const names = new Set(volumes.map(each => `${each.name}.${intent.name}`))
  const taken = [...estate.volumes, ...estate.snapshots].filter(each => names.has(each.name))
  return [
    there('group', group, each => `${each.name} is there.`, 'The group is not there any more.'),
    ...(system === undefined ? [] : [answers(system)]),
    rule(
      'volumes',
      volumes.length > 0,
      `It has ${countWords(volumes.length, 'volume', 'volumes')}.`,
      'It has no volumes.',
    ),
    nameCheck(intent.name, 'the snapshots'),
    rule(
      'name-free',
      taken.length === 0,
      'The name is free.',
      `${taken.map(({ name }) => name).join(', ')} ${taken.length === 1 ? 'exists' : 'exist'} already.`,
      { field: 'name' },
    ),
  ]
}

/** The snapshots that a step has made or is to make: one of each volume. */
const taken = (groups: ConsistencyGroups, step: Step) => groups.taken(step.groupLocator, step.name)

async function take(step: Step, ports: ChangePorts): Promise<Facts> {
  const groups = await ports.of(step.systemId, 'consistencyGroups')
  const [there] = await taken(groups, step)
  const task =
    there === undefined
      ? await groups.take(step.groupLocator, step.groupName, step.name)
      : there.isConsistent
        ? null
        : there.task
  const isDone = async () => (await taken(groups, step)).every(each => each.isConsistent)
  await waitForTask({ systemId: step.systemId, task, words: 'Reaching the drives', isDone }, ports)
  await ports.records.collect(step.systemId)
  const made = await taken(groups, step)
  const ids = await Promise.all(made.map(({ locator }) => ports.records.idAt(step.systemId, locator)))
  if (step.reason !== '')
    await ports.records.noteSnapshots(
      ids.filter(id => id !== undefined),
      { reason: step.reason },
    )
  return found({ systemId: step.systemId, takenAt: made[0]?.takenAt ?? undefined })
}

async function untake(step: Step, ports: ChangePorts): Promise<undefined> {
  const groups = await ports.of(step.systemId, 'consistencyGroups')
  const snapshots = await ports.of(step.systemId, 'snapshots')
  const made = await taken(groups, step)
  for (const { locator, naa } of made) await snapshots.remove(locator, naa)
  if (made.length === 0) return
  await ports.records.collect(step.systemId)
  await ports.records.gone(
    step.systemId,
    made.map(({ locator }) => locator),
  )
}

async function prove(step: Step, ports: ChangePorts): Promise<Evidence[]> {
  const made = await taken(await ports.of(step.systemId, 'consistencyGroups'), step)
  const moments = new Set(made.map(each => each.takenAt))
  return [
    {
      claim: 'The system states a consistent snapshot of each volume',
      holds: made.length === step.volumeLocators.length && made.every(each => each.isConsistent),
      measured: {
        volumes: `${step.volumeLocators.length}`,
        consistent: `${made.filter(each => each.isConsistent).length}`,
        names: made.map(({ name }) => name).join(', ') || 'none',
      },
    },
    {
      claim: 'All of them hold the same instant, which the system itself names',
      holds: moments.size === 1 && !moments.has(null),
      measured: { moments: [...moments].map(each => each ?? 'not stated').join(', ') || 'none' },
    },
  ]
}

export const snapshotGroup: ChangeKind<Intent, Step> = {
  ...snapshotGroupIntent,
  needs: ({ consistencyGroupId }) => [
    one('consistencyGroups', consistencyGroupId),
    those('volumes', 'consistencyGroupId', consistencyGroupId),
  ],
  needsAlso: ({ volumes }, { name }) => [
    those('volumes', 'name', ...volumes.map(each => `${each.name}.${name}`)),
    those('snapshots', 'name', ...volumes.map(each => `${each.name}.${name}`)),
  ],
  plan,
  runStep: (step, _context, ports) => take(step, ports),
  undoStep: (step, _context, ports) => untake(step, ports),
  prove: (_intent, plan, _facts, ports) => prove(firstStep(plan), ports),
  collects: itsSystem,
  reverse: () => undefined,
}
