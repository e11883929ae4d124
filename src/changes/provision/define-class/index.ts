import { byId, those, type Estate, type ServiceClass } from '@/core/estate'
import { latestDueOf, localHour, recurrenceOf } from '@/core/classes'
import { defineClassIntent, type DefineClassIntent as Intent } from '@/core/intents'
import type { Effect, Plan, PlanCheck } from '@/core/plan'
import { retentionRules, type RetentionRules } from '@/core/retention'
import { isQuiet, occurrences, scheduleTrouble } from '@/core/schedule'
import { countWords } from '@/core/units'
import type { ChangeKind } from '../../ChangeKind'
import { absent, rule, warn } from '../../parts/checks'
import { fact, firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { standsAsAsked } from '../../parts/standsAsAsked'
import { outlined } from '../../parts/outline'
import { brokenPromises } from '../../parts/promiseChecks'

type Kept = Omit<ServiceClass, 'id' | 'revision'>
type Step = Readonly<{ step: 'keep'; classId: string | null; before: Kept | null; after: Kept }>

const mostKept = 2000
const mostLetters = 60

/** Hours that are quiet; null where none are, or only half of it has been said. */
const quietOf = ({ quietFrom, quietTo }: Intent) =>
  quietFrom == null || quietTo == null ? null : { from: quietFrom, to: quietTo }

/** A class as the intent says it. */
function classOf(intent: Intent): Kept {
  const retention: Record<string, number> = {}
  for (const rule of retentionRules) if ((intent[rule] ?? 0) > 0) retention[rule] = intent[rule] ?? 0
  return {
    name: intent.name.trim(),
    lossesSurvived: intent.lossesSurvived,
    media: intent.media,
    latencyMilliseconds: intent.latencyMilliseconds,
    headroomRatio: intent.headroomPercent === null ? null : intent.headroomPercent / 100,
    snapshotRule: intent.snapshotRule.trim() === '' ? null : intent.snapshotRule.trim(),
    timeZone: intent.timeZone.trim() === '' ? 'UTC' : intent.timeZone.trim(),
    retention,
    quietHours: quietOf(intent),
    holdingDays: intent.holdingDays,
  }
}

const plain = ({ id: _, revision: __, ...kept }: ServiceClass): Kept => kept

function plan(estate: Estate, intent: Intent, now: Date): Plan<Step> {
  const look = lookInto(estate)
  const known = intent.classId === '' ? undefined : look.one('serviceClasses', intent.classId)
  const after = classOf(intent)
  const under = estate.volumes.filter(each => known !== undefined && each.classId === known.id)
  return outlined<Step>(estate, {
    title: `${known === undefined ? 'Define' : 'Alter'} the class ${after.name === '' ? '…' : after.name}`,
    checks: checksOf(estate, intent, after, now),
    effects: effectsOf(known, after, under.length),
    undo: {
      possible: true,
      how: known === undefined ? 'It can be removed again.' : 'It can be given its old promises again.',
    },
    steps: [
      {
        words:
          known === undefined
            ? 'Keep the class'
            : `Keep its new promises, for ${countWords(under.length, 'volume', 'volumes')}`,
        seconds: 0.1,
        step: { step: 'keep', classId: known?.id ?? null, before: known === undefined ? null : plain(known), after },
      },
    ],
    reads: look.reads,
    claims: known === undefined ? [`class:${after.name}`] : [known.id],
    proof: 'The record is read again.',
  })
}

function checksOf(estate: Estate, intent: Intent, after: Kept, now: Date): readonly PlanCheck[] {
  const known = byId(estate.serviceClasses, intent.classId)
  const namesake = estate.serviceClasses.find(each => each.name === after.name && each.id !== known?.id)
  const under = estate.volumes.filter(each => known !== undefined && each.classId === known.id)
  return [
    rule(
      'name',
      after.name !== '' && after.name.length <= mostLetters,
      'It has a name.',
      `Give it a name of at most ${mostLetters} letters.`,
      { field: 'name' },
    ),
    absent('name-free', namesake, 'No other class has that name.', () => 'Another class has that name.', {
      field: 'name',
    }),
    rule(
      'known',
      intent.classId === '' || known !== undefined,
      'The class is there.',
      'The class is not there any more.',
    ),
    ...(after.snapshotRule === null ? [nothingKept(after)] : scheduleChecks(after, after.snapshotRule, now)),
    ...quietChecks(intent, after),
    ...brokenPromises(estate, under, { ...after, id: known?.id ?? '', revision: 1 }, now),
  ]
}

const countOf = ({ retention }: Kept) => Object.values(retention).reduce((sum, each) => sum + (each ?? 0), 0)

const nothingKept = (after: Kept) =>
  rule(
    'retention',
    countOf(after) === 0,
    'It takes no snapshots.',
    'There is nothing to keep without a rule by which snapshots are taken.',
    { field: 'snapshotRule' },
  )

const yearMilliseconds = 366 * 86_400_000

/** The next moment at which a snapshot is due and the hour is not quiet; undefined where the next year has none. */
function nextDue({ snapshotRule, timeZone, quietHours }: Kept, now: Date): Date | undefined {
  if (snapshotRule === null) return undefined
  const after = latestDueOf({ snapshotRule, timeZone, quietHours }, now) ?? now
  const soon = new Date(after.getTime() + 1)
  const coming = occurrences(
    recurrenceOf(snapshotRule, timeZone),
    soon,
    new Date(soon.getTime() + yearMilliseconds),
    9000,
  )
  return coming.find(each => quietHours === null || !isQuiet(localHour(each, timeZone), quietHours))
}

function quietChecks({ quietFrom, quietTo }: Intent, { snapshotRule }: Kept): readonly PlanCheck[] {
  if (quietFrom == null && quietTo == null) return []
  return [
    rule(
      'quiet',
      quietFrom != null && quietTo != null && quietFrom !== quietTo && snapshotRule !== null,
      `None is taken between ${quietFrom ?? 0} and ${quietTo ?? 0} o’clock.`,
      snapshotRule === null
        ? 'There are no snapshots that could be quiet.'
        : 'Quiet hours have a beginning and an end, which differ.',
      { field: 'quietFrom' },
    ),
  ]
}

function scheduleChecks(after: Kept, snapshotRule: string, now: Date): readonly PlanCheck[] {
  const { timeZone, retention } = after
  const count = countOf(after)
  const trouble = scheduleTrouble(recurrenceOf(snapshotRule, timeZone))
  const next = trouble === undefined ? nextDue(after, now) : undefined
  return [
    rule(
      'schedule',
      trouble === undefined && next !== undefined,
      `The next is due ${next?.toISOString().slice(0, 16).replace('T', ' ') ?? ''} UTC.`,
      trouble ?? 'In the next year every moment of it lies in the quiet hours.',
      {
        field: 'snapshotRule',
      },
    ),
    rule(
      'retention',
      count > 0 && count <= mostKept,
      `At most ${count.toLocaleString('en')} snapshots are kept of each volume.`,
      count === 0
        ? 'Say how many are kept: without that they would fill the pool.'
        : `More than ${mostKept.toLocaleString('en')} of each volume are too many to look after.`,
      { field: 'keepLast' },
    ),
    warn(
      'hourly',
      retention.hourly === undefined ||
        !/FREQ=(DAILY|WEEKLY|MONTHLY|YEARLY)/i.test(snapshotRule) ||
        /BYHOUR/i.test(snapshotRule),
      'Hourly ones are kept only where the rule takes some each hour.',
      { field: 'snapshotRule' },
    ),
  ]
}

const words = (value: unknown) => (value === null || value === undefined ? null : String(value as string | number))
const kept = (retention: RetentionRules) =>
  retentionRules
    .flatMap(each =>
      retention[each] === undefined ? [] : [`${retention[each]} ${each === 'keepLast' ? 'last' : each}`],
    )
    .join(', ') || null

function effectsOf(before: ServiceClass | undefined, after: Kept, under: number): readonly Effect[] {
  const effect = (figure: string, label: string, of: (kept: Kept) => string | null): Effect => ({
    figure,
    label,
    unit: 'words',
    before: before === undefined ? null : of(before),
    after: of(after),
  })
  const all: Effect[] = [
    { figure: 'volumes', label: 'Volumes under it', unit: 'count', before: under, after: under },
    effect('lossesSurvived', 'Survives losses', each => words(each.lossesSurvived)),
    effect('media', 'Media', each => each.media),
    effect('latency', '95 of 100 minutes within', each =>
      each.latencyMilliseconds === null ? null : `${each.latencyMilliseconds} ms`,
    ),
    effect('headroom', 'Of the pool stays free', each =>
      each.headroomRatio === null ? null : `${Math.round(each.headroomRatio * 100)}%`,
    ),
    effect('snapshotRule', 'Snapshots', each => each.snapshotRule),
    effect('quietHours', 'No snapshots', each =>
      each.quietHours === null ? null : `from ${each.quietHours.from} to ${each.quietHours.to} o’clock`,
    ),
    effect('retention', 'Kept', each => kept(each.retention)),
  ]
  return all.filter(each => each.before !== null || each.after !== null)
}

export const defineClass: ChangeKind<Intent, Step> = {
  ...defineClassIntent,
  needs: ({ classId }) => (classId === '' ? [] : [those('volumes', 'classId', classId)]),
  plan,
  runStep: async (step, { key }, ports) => ({ classId: await ports.records.keepClass(step.after, step.classId, key) }),
  async undoStep(step, { facts }, ports) {
    if (step.before !== null) await ports.records.keepClass(step.before, step.classId, '')
    else if (facts['classId'] !== undefined) await ports.records.dropClass(facts['classId'])
    return undefined
  },
  async prove(_intent, plan, facts, ports) {
    const { after } = firstStep(plan)
    const found = byId((await ports.estate()).serviceClasses, fact(facts, 'classId'))
    return [standsAsAsked('The class stands with these promises', found, after)]
  },
  collects: () => [],
  reverse: (intent, facts) =>
    intent.classId === '' && facts['classId'] !== undefined
      ? { kind: 'remove-class', intent: { classId: facts['classId'] } }
      : undefined,
}
