import { DateTime } from 'luxon'
import { signExceptionIntent, type SignExceptionIntent as Intent } from '@/core/intents'
import type { Estate } from '@/core/estate'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { must, rule } from '../../parts/checks'
import { outlined } from '../../parts/outline'

interface Step extends Intent {
  readonly step: 'sign'
}
const leastReason = 10
const mostDays = 366

export const signException: ChangeKind<Intent, Step> = {
  ...signExceptionIntent,
  needs: () => [],
  plan,
  async runStep({ findingKey, gravity = null, reason, until }, { key }, ports) {
    await ports.records.signException(
      { findingKey, gravity, reason, until: endOf(until).toJSDate(), signedBy: ports.madeBy },
      key,
    )
    return {}
  },
  async undoStep(_, { key }, ports) {
    await ports.records.withdrawException(key)
    return undefined
  },
  async prove({ findingKey, reason, until }, _, __, ports) {
    const { exceptions } = await ports.estate()
    const found = exceptions.find(
      each =>
        each.findingKey === findingKey &&
        each.reason === reason &&
        Date.parse(each.until) === endOf(until).toMillis() &&
        each.signedBy === ports.madeBy,
    )
    return [
      {
        claim: 'The exception is on record',
        holds: found !== undefined,
        measured: { until: found?.until ?? 'none', signedBy: found?.signedBy ?? '' },
      },
    ]
  },
  collects: () => [],
  reverse: () => undefined,
}

/** The last second of a day, such as `2026-06-30`; invalid for what is no day. */
const endOf = (day: string) => DateTime.fromFormat(day, 'yyyy-MM-dd', { zone: 'utc' }).endOf('day').startOf('second')

/** What the plan looks at, and what follows from it. */
function see(intent: Intent, now: Date) {
  const until = endOf(intent.until)
  const days = until.isValid ? until.diff(DateTime.fromJSDate(now)).as('days') : 0
  return { days, intent, until }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent, now: Date): Plan<Step> {
  const seen = see(intent, now)

  return outlined<Step>(estate, {
    title: `Let stand: ${intent.findingTitle === '' ? intent.findingKey : intent.findingTitle}`,
    checks: checksOf(seen),
    oneWay: [
      'The finding stands on until it clears by itself; only its call for work is answered, until that day or until it is graver.',
    ],
    undo: { possible: true, how: 'An exception can be withdrawn at any time.' },
    steps: [{ step: { step: 'sign', ...intent }, words: 'Sign it with your name', seconds: 0.2 }],
    reads: [],
    claims: [`finding:${intent.findingKey}`],
    proof: 'The record is read again.',
  })
}

function checksOf({ days, intent, until }: Seen): readonly PlanCheck[] {
  return [
    rule(
      'reason',
      intent.reason.trim().length >= leastReason,
      'A reason is given.',
      `Say why it may stand, in at least ${leastReason} characters.`,
      { field: 'reason' },
    ),
    must(
      'until',
      until.isValid && days > 0 && days <= mostDays,
      !until.isValid
        ? 'Choose the day on which the exception ends.'
        : days <= 0
          ? 'That day is over.'
          : days > mostDays
            ? 'An exception lasts a year at most.'
            : `It ends in ${Math.ceil(days)} days.`,
      { field: 'until' },
    ),
  ]
}
