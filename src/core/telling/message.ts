import { countWords, formatBytes, formatSeconds } from '../units'
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

/** What a message says of a month's report. */
interface MonthOfPools {
  readonly month: string
  readonly pools: readonly {
    readonly name: string
    readonly capacityBytes: number
    readonly firstBytes: number | null
    readonly lastBytes: number | null
  }[]
}

/** The report of a month: each pool in a line. */
export const reportOf = (rule: Pick<Rule, 'name'>, { month, pools }: MonthOfPools): Message => ({
  state: 'round',
  gravity: 'note',
  subject: `Report of ${month}: ${countWords(pools.length, 'pool', 'pools')}`,
  lines: pools.map(({ name, capacityBytes, firstBytes, lastBytes }) => {
    if (lastBytes === null || capacityBytes === 0) return `${name}: not measured.`
    const grown = lastBytes - (firstBytes ?? lastBytes)
    const more = formatBytes(BigInt(Math.round(Math.abs(grown))))
    return `${name}: ${((lastBytes / capacityBytes) * 100).toFixed(0)}% full, ${more} ${grown < 0 ? 'less' : 'more'} than at its beginning.`
  }),
  href: `/watch/report?month=${month}`,
  rule: rule.name,
  key: `report/${month}`,
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
