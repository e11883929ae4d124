import { byId, those, type Estate, type ServiceClass } from '@/core/estate'
import { defineClassIntent, type DefineClassIntent as Intent } from '@/core/intents'
import type { Effect, Plan, PlanCheck } from '@/core/plan'
import { countWords } from '@/core/units'
import type { ChangeKind } from '../../ChangeKind'
import { absent, rule } from '../../parts/checks'
import { fact, firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { standsAsAsked } from '../../parts/standsAsAsked'
import { outlined } from '../../parts/outline'
import { brokenPromises } from '../../parts/promiseChecks'
import { keptWords, quietWords, scheduleAsked, scheduleChecks } from '../../parts/schedules'

type Kept = Omit<ServiceClass, 'id' | 'revision'>
type Step = Readonly<{ step: 'keep'; classId: string | null; before: Kept | null; after: Kept }>

const mostLetters = 60

/** A class as the intent says it. */
function classOf(intent: Intent): Kept {
  return {
    name: intent.name.trim(),
    lossesSurvived: intent.lossesSurvived,
    media: intent.media,
    latencyMilliseconds: intent.latencyMilliseconds,
    headroomRatio: intent.headroomPercent === null ? null : intent.headroomPercent / 100,
    copyWithinMinutes: intent.copyWithinMinutes ?? null,
    defaultGroupId: intent.defaultGroupId === undefined || intent.defaultGroupId === '' ? null : intent.defaultGroupId,
    ...scheduleAsked(intent),
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
    effects: effectsOf(estate, known, after, under.length),
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
    rule(
      'group',
      after.defaultGroupId === null || byId(estate.hostGroups, after.defaultGroupId) !== undefined,
      'Who sees what is made under it is known, or nobody does.',
      'The host group is not there any more.',
      { field: 'defaultGroupId' },
    ),
    ...scheduleChecks(intent, now),
    ...brokenPromises(estate, under, { ...after, id: known?.id ?? '', revision: 1 }, now),
  ]
}

const words = (value: unknown) => (value === null || value === undefined ? null : String(value as string | number))
function effectsOf(estate: Estate, before: ServiceClass | undefined, after: Kept, under: number): readonly Effect[] {
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
    effect('copy', 'A copy on another system, minutes old', each => words(each.copyWithinMinutes)),
    effect('access', 'Seen by, where nothing else is said', each =>
      each.defaultGroupId === null
        ? null
        : (byId(estate.hostGroups, each.defaultGroupId)?.name ?? 'a group that is gone'),
    ),
    effect('snapshotRule', 'Snapshots', each => each.snapshotRule),
    effect('quietHours', 'No snapshots', each => quietWords(each.quietHours)),
    effect('retention', 'Kept', each => keptWords(each.retention)),
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
