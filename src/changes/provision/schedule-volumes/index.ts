import { byId, those, type Estate, type Volume } from '@/core/estate'
import { scheduleOf, snapshotNeed, type SnapshotSchedule } from '@/core/classes'
import { scheduleVolumesIntent, type ScheduleVolumesIntent as Intent } from '@/core/intents'
import type { Effect, Plan, PlanCheck } from '@/core/plan'
import { retentionRules } from '@/core/retention'
import { ruleInWords } from '@/core/schedule'
import type { ChangeKind } from '../../ChangeKind'
import { advise, rule } from '../../parts/checks'
import { allInUse, namedTogether } from '../../parts/inUse'
import { firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'
import { keptWords, quietWords, scheduleAsked, scheduleChecks } from '../../parts/schedules'

type Own = Volume['ownSchedule']
type Step = Readonly<{ step: 'set'; own: Own; before: Readonly<Record<string, Own>> }>

/** What changes in a day where nothing is said of it. */
const usualChangeRatio = 0.02

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volumes = look.some('volumes', intent.volumeIds)
  const own: Own = intent.isOwn ? scheduleAsked(intent) : null
  const what = namedTogether(volumes)
  const words =
    own === null
      ? `Have ${what} go by class`
      : `Give ${what} a snapshot schedule of ${volumes.length === 1 ? 'its' : 'their'} own`
  const nowOf = (volume: Volume) => scheduleOf(volume, byId(estate.serviceClasses, volume.classId))
  const afterOf = (volume: Volume) => scheduleOf({ ownSchedule: own }, byId(estate.serviceClasses, volume.classId))
  return { estate, intent, look, volumes, own, words, nowOf, afterOf }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent, now: Date): Plan<Step> {
  const seen = see(estate, intent)
  const { look, volumes, own, words } = seen
  return outlined<Step>(estate, {
    title: words,
    checks: checksOf(seen, now),
    effects: effectsOf(seen),
    undo: { possible: true, how: 'They can go by what they went by before again.' },
    steps:
      volumes.length === 0
        ? []
        : [
            {
              words,
              seconds: 0.1,
              step: { step: 'set', own, before: Object.fromEntries(volumes.map(each => [each.id, each.ownSchedule])) },
            },
          ],
    reads: look.reads,
    claims: volumes.map(({ id }) => id),
    proof: 'The records are read again. Each snapshot that comes due proves itself by its moment.',
  })
}

/** What is kept comes back with its parts in another order. */
const same = (a: Own, b: Own) => JSON.stringify(inOrder(a)) === JSON.stringify(inOrder(b))
const inOrder = (own: Own) =>
  own === null
    ? null
    : [
        ...[own.snapshotRule, own.timeZone, own.quietHours?.from, own.quietHours?.to],
        ...retentionRules.map(rule => own.retention[rule] ?? 0),
      ]

function checksOf({ estate, intent, volumes, own }: Seen, now: Date): readonly PlanCheck[] {
  const promised = volumes.filter(each => (byId(estate.serviceClasses, each.classId)?.snapshotRule ?? null) !== null)
  const images = volumes.filter(({ isImage }) => isImage)
  return [
    allInUse(volumes, intent.volumeIds.length),
    rule(
      'other',
      volumes.some(each => !same(each.ownSchedule, own)),
      'It is another schedule than they have.',
      own === null ? 'They go by their classes already.' : 'They have it already.',
      { field: 'snapshotRule' },
    ),
    ...(own === null ? [] : scheduleChecks(intent, now)),
    ...(own === null || promised.length === 0
      ? []
      : [
          advise(
            'class-promises',
            false,
            '',
            `The class of ${namedTogether(promised)} promises snapshots of its own: that promise is still measured, and is broken where these come later.`,
            { field: 'snapshotRule' },
          ),
        ]),
    ...(own?.snapshotRule == null || images.length === 0
      ? []
      : [advise('images', false, '', 'Of an image nothing changes: its snapshots would all be alike.')]),
  ]
}

const ruleWords = (schedule: SnapshotSchedule | undefined) =>
  schedule === undefined || schedule.snapshotRule === null ? 'none' : ruleInWords(schedule.snapshotRule)

/** What is told of several where they are not alike. */
const together = (volumes: readonly Volume[], of: (volume: Volume) => string | null) =>
  [...new Set(volumes.map(each => of(each) ?? 'none'))].slice(0, 3).join('; ')

function effectsOf({ volumes, nowOf, afterOf }: Seen): readonly Effect[] {
  const lines = (of: Seen['nowOf']) => ({
    rule: together(volumes, each => ruleWords(of(each))),
    kept: together(volumes, each => keptWords(of(each)?.retention ?? {})),
    quiet: together(volumes, each => quietWords(of(each)?.quietHours ?? null)),
    bytes: volumes.reduce((sum, each) => sum + needOf(each, of(each)), 0n),
  })
  const [before, after] = [lines(nowOf), lines(afterOf)]
  const words = (figure: string, label: string, of: 'rule' | 'kept' | 'quiet'): Effect => ({
    ...{ figure, label, unit: 'words', before: before[of], after: after[of] },
  })
  return [
    words('snapshotRule', 'Snapshots', 'rule'),
    words('retention', 'Kept', 'kept'),
    ...(before.quiet === 'none' && after.quiet === 'none' ? [] : [words('quietHours', 'None', 'quiet')]),
    {
      figure: 'snapshotBytes',
      label: 'Their room once all have come, at 2% a day',
      unit: 'bytes',
      before: `${before.bytes}`,
      after: `${after.bytes}`,
    },
  ]
}

const needOf = ({ writtenBytes }: Volume, schedule: SnapshotSchedule | undefined) =>
  schedule === undefined ? 0n : (snapshotNeed(schedule, writtenBytes, usualChangeRatio) ?? 0n)

export const scheduleVolumes: ChangeKind<Intent, Step> = {
  ...scheduleVolumesIntent,
  needs: ({ volumeIds }) => [those('volumes', 'id', ...volumeIds)],
  plan,
  async runStep({ own, before }, _context, ports) {
    await ports.records.setSchedule(Object.keys(before), own)
    return {}
  },
  async undoStep({ before }, _context, ports) {
    for (const [id, own] of Object.entries(before)) await ports.records.setSchedule([id], own)
    return undefined
  },
  async prove(_intent, made, _facts, ports) {
    const { own, before } = firstStep(made)
    const { volumes } = await ports.estate()
    const asked = Object.keys(before).length
    const having = volumes.filter(each => each.id in before && same(each.ownSchedule, own)).length
    return [
      {
        claim: own === null ? 'All of them go by their classes' : 'All of them have it',
        holds: having === asked,
        measured: { haveIt: `${having}`, asked: `${asked}` },
      },
    ]
  },
  collects: () => [],
  reverse: () => undefined,
}
