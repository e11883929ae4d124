import { byId, type Estate, type Rule } from '@/core/estate'
import { defineRuleIntent, type DefineRuleIntent as Intent } from '@/core/intents'
import type { Effect, Plan, PlanCheck } from '@/core/plan'
import { quietTrouble } from '@/core/telling'
import type { ChangeKind } from '../../ChangeKind'
import { absent, advise, rule } from '../../parts/checks'
import { fact, firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { standsAsAsked } from '../../parts/standsAsAsked'
import { outlined } from '../../parts/outline'

type Kept = Omit<Rule, 'id' | 'revision'>
type Step = Readonly<{ step: 'keep'; ruleId: string | null; before: Kept | null; after: Kept }>

const isTimed = (subject: Kept['subject']) => subject === 'round' || subject === 'report'
const isMeasured = (subject: Kept['subject']) => subject !== 'findings' && !isTimed(subject)

/** A rule as the intent says it. */
function ruleOf(intent: Intent): Kept {
  const quietDays = intent.quietDays.trim()
  const timeZone = intent.timeZone.trim()
  return {
    name: intent.name.trim(),
    subject: intent.subject,
    gravity: intent.gravity,
    beginsAt: isMeasured(intent.subject) ? intent.beginsAt : null,
    endsAt: isMeasured(intent.subject) ? intent.endsAt : null,
    minutes: intent.minutes ?? 0,
    quietFrom: intent.quietFrom,
    quietTo: intent.quietTo,
    quietDays: quietDays === '' ? null : quietDays,
    timeZone: timeZone === '' ? 'UTC' : timeZone,
    isUrgentAlways: intent.isUrgentAlways,
    roundAt: isTimed(intent.subject) ? intent.roundAt : null,
    routeIds: [...intent.routeIds],
  }
}

const plain = ({ id: _, revision: __, ...kept }: Rule): Kept => kept

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const known = intent.ruleId === '' ? undefined : look.one('rules', intent.ruleId)
  const routes = look.some('routes', intent.routeIds)
  const after = ruleOf(intent)
  return outlined<Step>(estate, {
    title: `${known === undefined ? 'Define' : 'Alter'} the rule ${after.name === '' ? '…' : after.name}`,
    checks: checksOf(estate, intent, after, routes.length),
    effects: effectsOf(
      after,
      routes.map(({ name }) => name),
    ),
    undo: {
      possible: true,
      how: known === undefined ? 'It can be removed again.' : 'It can be made what it was again.',
    },
    steps: [
      {
        words: 'Keep the rule',
        seconds: 0.1,
        step: { step: 'keep', ruleId: known?.id ?? null, before: known === undefined ? null : plain(known), after },
      },
    ],
    reads: look.reads,
    claims: known === undefined ? [`rule:${after.name}`] : [known.id],
    proof: 'The record is read again. Whether messages arrive is proven by its routes.',
  })
}

function checksOf(estate: Estate, intent: Intent, after: Kept, routes: number): readonly PlanCheck[] {
  const known = byId(estate.rules, intent.ruleId)
  const namesake = estate.rules.find(each => each.name === after.name && each.id !== known?.id)
  const trouble = quietTrouble(after)
  return [
    rule('name', after.name !== '', 'It has a name.', 'Give it a name.', { field: 'name' }),
    absent('name-free', namesake, 'No other rule has that name.', () => 'Another rule has that name.', {
      field: 'name',
    }),
    rule('known', intent.ruleId === '' || known !== undefined, 'The rule is there.', 'The rule is not there any more.'),
    ...(isMeasured(after.subject) ? valueChecks(after) : []),
    ...(isTimed(after.subject)
      ? [
          rule('round', after.roundAt !== null, `It is told at ${after.roundAt ?? 0} o’clock.`, 'Say at which hour.', {
            field: 'roundAt',
          }),
        ]
      : []),
    rule('quiet', trouble === undefined, 'Its quiet times can be kept.', trouble ?? '', { field: 'quietDays' }),
    rule(
      'routes',
      routes === intent.routeIds.length,
      'All of its routes are there.',
      'A route is not there any more.',
      {
        field: 'routeIds',
      },
    ),
    advise('told', routes > 0, 'Somebody is told.', 'It tells nobody yet.', { field: 'routeIds' }),
  ]
}

function valueChecks({ subject, beginsAt, endsAt }: Kept): readonly PlanCheck[] {
  const isBelow = subject === 'days to limit'
  const apart = beginsAt !== null && endsAt !== null && (isBelow ? endsAt >= beginsAt : endsAt <= beginsAt)
  return [
    rule('begins', beginsAt !== null, `It begins at ${beginsAt ?? 0}.`, 'Say at which value it begins.', {
      field: 'beginsAt',
    }),
    rule(
      'ends',
      endsAt === null || apart,
      'It ends on the other side of where it begins.',
      isBelow
        ? 'It begins when fewer days are left: it must end at as many, or more.'
        : 'It must end at a lower value than that at which it begins, or at the same.',
      { field: 'endsAt' },
    ),
    advise(
      'apart',
      endsAt !== null && endsAt !== beginsAt,
      'It ends apart from where it begins: what sways is told once.',
      'It ends where it begins: what sways about that value begins and ends again and again.',
      { field: 'endsAt' },
    ),
  ]
}

const effectsOf = (after: Kept, routes: readonly string[]): readonly Effect[] => [
  { figure: 'subject', label: 'Of', unit: 'words', before: null, after: after.subject },
  { figure: 'routes', label: 'Told to', unit: 'words', before: null, after: routes.join(', ') || 'nobody' },
]

export const defineRule: ChangeKind<Intent, Step> = {
  ...defineRuleIntent,
  needs: () => [],
  plan,
  runStep: async (step, { key }, ports) => ({
    ruleId: await ports.records.keepOwn('rules', step.after, step.ruleId, key),
  }),
  async undoStep(step, { facts }, ports) {
    if (step.before !== null) await ports.records.keepOwn('rules', step.before, step.ruleId, '')
    else if (facts['ruleId'] !== undefined) await ports.records.dropOwn('rules', facts['ruleId'])
    return undefined
  },
  async prove(_intent, made, facts, ports) {
    const { after } = firstStep(made)
    const found = byId((await ports.estate()).rules, fact(facts, 'ruleId'))
    return [standsAsAsked('The rule stands as it was asked for', found, after)]
  },
  collects: () => [],
  reverse: (intent, facts) =>
    intent.ruleId === '' && facts['ruleId'] !== undefined
      ? { kind: 'remove-rule', intent: { ruleId: facts['ruleId'] } }
      : undefined,
}
