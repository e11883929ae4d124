import { DateTime } from 'luxon'
import { scheduleOf } from '@/core/classes'
import { byId, one, those, type Estate } from '@/core/estate'
import { removeSnapshotsIntent, type RemoveSnapshotsIntent as Intent } from '@/core/intents'
import type { Effect, Plan, PlanCheck } from '@/core/plan'
import { judged, spaceOf, type Judged } from '@/core/snapshots'
import { countAtStart, countWords } from '@/core/units'
import type { ChangeKind, Evidence } from '../../ChangeKind'
import { rule } from '../../parts/checks'
import { fact, firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'hold'; systemId: string; volumeId: string; snapshotIds: readonly string[]; days: number }>

const leastReason = 10
/** What a snapshot holds is given back only when it goes: it waits shorter than a volume. */
const mostDays = 3
const named = (names: readonly string[]) =>
  names.length > 3 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(', ')

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const serviceClass = look.one('serviceClasses', volume?.classId)
  const chosen = look.some('snapshots', intent.snapshotIds).filter(each => each.volumeId === volume?.id)
  const all = estate.snapshots.filter(each => each.volumeId === volume?.id && each.goesAt === null)
  const ids = new Set(chosen.map(({ id }) => id))
  const schedule = scheduleOf(volume, serviceClass)
  const needs = judged(all, { schedule, volumes: estate.volumes, mappings: estate.mappings }).filter(each =>
    ids.has(each.snapshot.id),
  )
  const days = Math.min(mostDays, estate.settings.holdingDays)
  return { all, chosen, days, estate, ids, intent, look, needs, serviceClass, volume }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { chosen, days, look, volume } = seen
  return outlined<Step>(estate, {
    title: `Remove ${chosen.length === 1 ? (chosen[0]?.name ?? 'a snapshot') : countWords(chosen.length, 'snapshot', 'snapshots')} of ${volume?.name ?? 'a volume'}`,
    checks: checksOf(seen),
    effects: effectsOf(seen),
    oneWay: [`After ${days} days they are deleted, and nothing brings them back.`],
    undo: { possible: true, how: `For ${days} days they can be brought back as they are.` },
    steps:
      volume === undefined || chosen.length === 0
        ? []
        : [
            {
              words: `Keep ${chosen.length === 1 ? 'it' : 'them'} in holding for ${days} days`,
              seconds: 0.05,
              step: {
                step: 'hold',
                systemId: volume.systemId,
                volumeId: volume.id,
                snapshotIds: chosen.map(({ id }) => id),
                days,
              },
            },
          ],
    reads: look.reads,
    claims: chosen.map(({ id }) => id),
    proof: 'The records are read again: each is in holding until that day, and the system still states each.',
  })
}

function checksOf({ chosen, intent, needs, serviceClass, volume }: Seen): readonly PlanCheck[] {
  const promised = needs.filter(({ rules }) => rules.length > 0)
  const rulesOf = [...new Set(promised.flatMap(({ rules }) => rules))]
  const words = `${volume?.ownSchedule == null ? (serviceClass?.name ?? 'The class') : 'Its own schedule'} needs ${promised.length} of them (${rulesOf.join(', ')})`
  return [
    rule(
      'chosen',
      chosen.length > 0 && chosen.length === intent.snapshotIds.length,
      `${countAtStart(chosen.length, 'snapshot is', 'snapshots are')} chosen.`,
      chosen.length === 0 ? 'Choose the snapshots.' : 'Some of them are not there any more, or are of another volume.',
    ),
    ...neededChecks(needs),
    rule(
      'promise',
      promised.length === 0 || intent.reason.trim().length >= leastReason,
      promised.length === 0
        ? 'No promise needs them.'
        : `${words}: they go all the same, for the reason that is given.`,
      `${words}.`,
      {
        field: 'reason',
        remedy: `Give a reason of at least ${leastReason} characters, or wait: they go by themselves when no rule needs them.`,
      },
    ),
  ]
}

/** That nothing but its rules needs any of them. */
function neededChecks(needs: readonly Judged[]): PlanCheck[] {
  const held = needs.filter(({ snapshot }) => snapshot.heldReason !== null)
  const clones = needs.flatMap(each => each.clones)
  const shownTo = needs.flatMap(each => each.shownTo)
  return [
    rule(
      'no-hold',
      held.length === 0,
      'None is held.',
      `${named(held.map(({ snapshot }) => `${snapshot.name} (${snapshot.heldReason ?? ''})`))} must stay.`,
      { remedy: 'Release it first, or leave it out.' },
    ),
    rule(
      'no-clone',
      clones.length === 0,
      'No clone shares with them.',
      `${named(clones)} ${clones.length === 1 ? 'is a clone that shares' : 'are clones that share'} with them.`,
      { remedy: 'Split or remove the clones first, or leave these snapshots out.' },
    ),
    rule('not-shown', shownTo.length === 0, 'They are shown to nobody.', `${named(shownTo)} would lose the disk.`, {
      remedy: 'Take them from those hosts first.',
    }),
  ]
}

function effectsOf({ all, ids }: Seen): readonly Effect[] {
  const space = spaceOf(all)
  const back = space.reclaim(ids)
  const left = space.ordered.filter(({ id }) => !ids.has(id))
  return [
    { figure: 'snapshots', label: 'Snapshots', unit: 'count', before: all.length, after: left.length },
    {
      figure: 'snapshotBytes',
      label: space.isExact ? 'Space that they hold' : 'Space that they hold, at the least',
      unit: 'bytes',
      before: `${space.totalBytes}`,
      after: `${space.totalBytes - back}`,
    },
    {
      figure: 'gap',
      label: 'Longest time without a moment',
      unit: 'seconds',
      before: longestGap(space.ordered),
      after: longestGap(left),
    },
  ]
}

/** In seconds, between moments that stand beside each other; null for fewer than two. */
function longestGap(ordered: readonly { readonly takenAt: string | null }[]): number | null {
  const moments = ordered.flatMap(({ takenAt }) => (takenAt === null ? [] : [Date.parse(takenAt) / 1000]))
  return moments.length < 2 ? null : Math.max(...moments.slice(1).map((at, index) => at - (moments[index] ?? at)))
}

export const removeSnapshots: ChangeKind<Intent, Step> = {
  ...removeSnapshotsIntent,
  needs: ({ volumeId, snapshotIds }) => [
    one('volumes', volumeId),
    those('snapshots', 'volumeId', volumeId),
    those('volumes', 'cloneOfId', ...snapshotIds),
  ],
  plan,
  async runStep(step, _context, ports) {
    const until = DateTime.fromJSDate(await ports.now())
      .plus({ days: step.days })
      .toJSDate()
    await ports.records.noteSnapshots(step.snapshotIds, { goesAt: until })
    return { systemId: step.systemId, volumeId: step.volumeId, goesAt: until.toISOString() }
  },
  async undoStep(step, _context, ports) {
    await ports.records.noteSnapshots(step.snapshotIds, { goesAt: null })
    return undefined
  },
  async prove(_intent, plan, facts, ports): Promise<Evidence[]> {
    const step = firstStep(plan)
    const { snapshots } = await ports.estate()
    const system = await ports.of(step.systemId, 'snapshots')
    const kept = step.snapshotIds.map(id => byId(snapshots, id))
    const stated = await Promise.all(kept.map(async each => (each === undefined ? undefined : system.at(each.locator))))
    return [
      {
        claim: 'Each is in holding until that day',
        holds: kept.every(each => each?.goesAt === fact(facts, 'goesAt')),
        measured: { until: fact(facts, 'goesAt'), inHolding: `${kept.filter(each => each?.goesAt != null).length}` },
      },
      {
        claim: 'The system still states each, so that it can be brought back',
        holds: stated.every((each, index) => each !== undefined && each.naa === kept[index]?.naa),
        measured: { stated: `${stated.filter(each => each !== undefined).length} of ${step.snapshotIds.length}` },
      },
    ]
  },
  collects: () => [],
  reverse: ({ volumeId, snapshotIds }) => ({ kind: 'keep-snapshots', intent: { volumeId, snapshotIds } }),
}
