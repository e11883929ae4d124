import { group } from 'd3-array'
import { v5 as uuidOf } from 'uuid'
import { refusalOf } from '@/core/errors'
import type { Rule } from '@/core/estate'
import { beginningOf, endOf, isQuietNow, judge, mattersOf, reportOf, roundOf, type Message } from '@/core/telling'
import { countAtStart } from '@/core/units'
import { inTransaction, type Scope } from '@/records'
import { objects } from '@/records/objects'
import { monthReport, poolFacts, todayNow, volumeFacts } from '@/records/queries'
import {
  dropOldMessages,
  dueMessages,
  keepStandings,
  noteFailed,
  noteSent,
  queueMessage,
  standingsOf,
  type DueMessage,
} from '@/records/telling'
import { DateTime } from 'luxon'
import type { World } from '../World'
import { eachByItself } from './eachByItself'

/** What a message is called follows from what it says, so that two workers, or one that is killed, make it once. */
const namespace = '7f0f4a52-9b0e-5b0a-8a52-0f4a529b0e5b'
const mostAtOnce = 50
/** A receiver that does not take a message is asked again after so long, twice as long each time (seconds), for a day. */
const firstPauseSeconds = 15
const longestPauseSeconds = 3600
const mostTries = 34
const dropMilliseconds = 3_600_000
const droppedAt = new WeakMap<World, number>()

/** Judges every rule by what stands now, and sends what is to leave. */
export async function tell(world: World): Promise<void> {
  const rules = await objects({ database: world.database }, 'rules')
  // The wall's time: whom it is told to lives by that, whatever the estate's clock says.
  const now = new Date()
  // One that cannot be judged keeps nobody from hearing of the others.
  await eachByItself([
    ...rules.map(rule => () => inTransaction(world.database, scope => judgeRule(scope, rule, now))),
    () => sendDue(world),
    () => dropNowAndThen(world, now),
  ])
}

async function dropNowAndThen(world: World, now: Date): Promise<void> {
  if (now.getTime() - (droppedAt.get(world) ?? 0) < dropMilliseconds) return
  droppedAt.set(world, now.getTime())
  await dropOldMessages({ database: world.database })
}

async function judgeRule(scope: Scope, rule: Rule, now: Date): Promise<void> {
  if (rule.subject === 'round') return tellRound(scope, rule, now)
  if (rule.subject === 'report') return tellReport(scope, rule, now)
  const known = await standingsOf(scope, rule.id)
  const told = new Set(known.flatMap(({ key, toldAt }) => (toldAt === null ? [] : [key])))
  const matters = mattersOf(rule, await factsFor(scope, rule), told)
  const { begun, ended, kept } = judge(rule, matters, known, now)
  for (const each of begun) await queue(scope, rule, beginningOf(rule, each), `${each.key} ${each.since}`)
  for (const each of ended) await queue(scope, rule, endOf(rule, each), `${each.key} ${each.since}`)
  await keepStandings(scope, rule.id, kept)
}

/** What the rule looks at, and nothing else. */
async function factsFor(scope: Scope, { subject, beginsAt, endsAt }: Rule) {
  const nothing = { findings: [], pools: [], volumes: [] }
  if (subject === 'findings')
    return {
      ...nothing,
      findings: (await todayNow(scope, await objects(scope, 'systems'), await objects(scope, 'pools'))).open,
    }
  if (subject === 'latency')
    return { ...nothing, volumes: await volumeFacts(scope, Math.min(beginsAt ?? 0, endsAt ?? beginsAt ?? 0)) }
  return { ...nothing, pools: await poolFacts(scope) }
}

/** Once a day, when its hour has come by the clocks of its zone. One that was missed by more than an hour is left out. */
async function tellRound(scope: Scope, rule: Rule, now: Date): Promise<void> {
  const local = DateTime.fromJSDate(now, { zone: rule.timeZone })
  if (rule.roundAt === null || local.hour !== Math.floor(rule.roundAt) || isQuietNow(rule, now)) return
  const { open: findings } = await todayNow(scope, await objects(scope, 'systems'), await objects(scope, 'pools'))
  const sentence =
    findings.length === 0
      ? 'nothing calls for work'
      : `${countAtStart(findings.length, 'thing calls', 'things call').toLowerCase()} for work`
  const matters = findings.map(({ gravity, what, why, remedy, href }) => ({ gravity, title: what, why, remedy, href }))
  const day = local.toFormat('yyyy-MM-dd')
  await queue(scope, rule, roundOf(rule, day, sentence, matters), day)
}

/** On the first of each month, of the month that is over. */
async function tellReport(scope: Scope, rule: Rule, now: Date): Promise<void> {
  const local = DateTime.fromJSDate(now, { zone: rule.timeZone })
  if (rule.roundAt === null || local.day !== 1 || local.hour !== Math.floor(rule.roundAt)) return
  const month = local.minus({ months: 1 }).toFormat('yyyy-MM')
  await queue(scope, rule, reportOf(rule, await monthReport(scope, month)), month)
}

async function queue(scope: Scope, rule: Rule, message: Message, of: string): Promise<void> {
  for (const routeId of rule.routeIds) {
    const id = uuidOf(`${rule.id} ${routeId} ${message.state} ${of}`, namespace)
    await queueMessage(scope, message, { ruleId: rule.id, routeId, id })
  }
}

/** Each route by itself, so that a receiver that does not answer holds up no other; after one that it did not take, its others wait. */
async function sendDue(world: World): Promise<void> {
  const due = await dueMessages({ database: world.database }, mostAtOnce)
  const byRoute = group(due, ({ routeId }) => routeId)
  await Promise.all(
    [...byRoute.values()].map(async messages => {
      for (const each of messages) if (!(await isSent(world, each))) return
    }),
  )
}

async function isSent(world: World, { id, routeId, message, tries }: DueMessage): Promise<boolean> {
  const scope = { database: world.database }
  try {
    await noteSent(scope, id, await (await world.teller(routeId)).tell(message, id))
    return true
  } catch (cause) {
    if (world.stop.aborted) throw cause
    const { what, why } = refusalOf(cause)
    const pause = Math.min(longestPauseSeconds, firstPauseSeconds * 2 ** tries) / world.pace
    await noteFailed(scope, id, `${what} ${why}`, tries + 1 >= mostTries ? null : pause)
    return false
  }
}
