import { formatSeconds } from '../units'
import type { Matter, Standing } from './judge'
import type { Rule } from '../estate'

export type MessageState = 'begun' | 'ended' | 'round' | 'test'

/** What somebody is told, whatever way it takes. */
export interface Message {
  readonly state: MessageState
  readonly gravity: Matter['gravity']
  /** One line. */
  readonly subject: string
  readonly lines: readonly string[]
  /** The page that shows it, below the address of Wendrel. */
  readonly href: string
  /** By which rule. */
  readonly rule: string
  /** The same in what begins and ends one matter. */
  readonly key: string
}

const words: Readonly<Record<Matter['gravity'], string>> = { now: 'Now', soon: 'Soon', note: 'Note' }

export const beginningOf = (rule: Pick<Rule, 'name'>, { matter, returns }: Standing): Message => ({
  state: 'begun',
  gravity: matter.gravity,
  subject: `${words[matter.gravity]}: ${matter.title}`,
  lines: [matter.why, matter.remedy, ...(returns === 0 ? [] : [`It has gone and come back ${returns} times.`])].filter(
    line => line !== '',
  ),
  href: matter.href,
  rule: rule.name,
  key: matter.key,
})

export const endOf = (rule: Pick<Rule, 'name'>, { matter, since, goneSince, returns }: Standing): Message => ({
  state: 'ended',
  gravity: 'note',
  subject: `Over: ${matter.title}`,
  lines: [
    `It stood for ${formatSeconds(Math.max(0, ((goneSince ?? since) - since) / 1000))}.`,
    ...(returns === 0 ? [] : [`Meanwhile it went and came back ${returns} times.`]),
  ],
  href: matter.href,
  rule: rule.name,
  key: matter.key,
})

/** The daily round: what stands, in the order of work. */
export const roundOf = (
  rule: Pick<Rule, 'name'>,
  day: string,
  sentence: string,
  matters: readonly Omit<Matter, 'key'>[],
): Message => ({
  state: 'round',
  gravity: matters.some(({ gravity }) => gravity === 'now') ? 'now' : matters.length > 0 ? 'soon' : 'note',
  subject: `${day}: ${sentence}`,
  lines: matters.map(({ gravity, title, why }) => `${words[gravity]}: ${title}. ${why}`),
  href: '/',
  rule: rule.name,
  key: `round/${day}`,
})

/** What is sent to try a route. */
export const testOf = (route: string, by: string): Message => ({
  state: 'test',
  gravity: 'note',
  subject: `Test of the route ${route}`,
  lines: [`${by} tries whether messages arrive here. Nothing needs to be done.`],
  href: '/watch/telling',
  rule: 'none',
  key: `test/${route}`,
})
