const dayMilliseconds = 86_400_000
const weekdays = ['SU', 'MO', 'TU', 'WE', 'TH', 'FR', 'SA']

/** A rule of whole days: at which local times, on which days of the week, every how many days. */
export interface PlainRule {
  readonly everyDays: number
  /** Days of the week that count, Sunday first; undefined for all. */
  readonly isOn: readonly boolean[] | undefined
  /** Milliseconds since midnight, ascending. */
  readonly times: readonly number[]
}

const allowed = /^(?:FREQ|INTERVAL|BYDAY|BYHOUR|BYMINUTE|BYSECOND|WKST)$/
const wholes = (text: string | undefined, otherwise: number): number[] =>
  text === undefined ? [otherwise] : text.split(',').map(Number)
const isWithin = (values: readonly number[], below: number) =>
  values.every(each => Number.isInteger(each) && each >= 0 && each < below)

/**
 * What nearly every schedule is, read for arithmetic: days or weeks at some times of day. @returns undefined for a rule that says more;
 * that is expanded by the library, which takes some microseconds a date
 */
export function plainRule(rule: string, start: number): PlainRule | undefined {
  const parts = new Map(rule.split(';').map(part => part.split('=', 2) as [string, string]))
  if ([...parts.keys()].some(name => !allowed.test(name))) return undefined
  const everyDays = Number(parts.get('INTERVAL') ?? 1)
  const days = parts.get('BYDAY')?.split(',')
  const freq = parts.get('FREQ')
  // Weeks are days of the week, as long as every week counts.
  const isPlain = freq === 'DAILY' || (freq === 'WEEKLY' && everyDays === 1 && days !== undefined)
  if (!isPlain || !Number.isInteger(everyDays) || everyDays < 1) return undefined
  if (days?.some(each => !weekdays.includes(each)) === true) return undefined
  const at = new Date(start)
  const hours = wholes(parts.get('BYHOUR'), at.getUTCHours())
  const minutes = wholes(parts.get('BYMINUTE'), at.getUTCMinutes())
  const seconds = wholes(parts.get('BYSECOND'), at.getUTCSeconds())
  if (!isWithin(hours, 24) || !isWithin(minutes, 60) || !isWithin(seconds, 60)) return undefined
  const times = hours.flatMap(h => minutes.flatMap(m => seconds.map(s => ((h * 60 + m) * 60 + s) * 1000)))
  return {
    everyDays,
    isOn: days === undefined ? undefined : weekdays.map(each => days.includes(each)),
    times: [...new Set(times)].sort((a, b) => a - b),
  }
}

/**
 * Local times of a plain rule in their order. All times are milliseconds, as if local ones were UTC.
 * @param from before which nothing is asked for: whole days until then are passed over
 * @param to after which nothing is
 * @param take says whether to go on
 */
export function eachLocal(
  { everyDays, isOn, times }: PlainRule,
  start: number,
  { from, to }: { readonly from: number; readonly to: number },
  take: (local: number) => boolean,
): void {
  const step = everyDays * dayMilliseconds
  const firstDay = Math.floor(start / dayMilliseconds) * dayMilliseconds
  const passed = Math.max(0, Math.floor((from - firstDay) / step))
  for (let day = firstDay + passed * step; day <= to; day += step) {
    // The first day of 1970 was a Thursday.
    if (isOn !== undefined && isOn[(((day / dayMilliseconds + 4) % 7) + 7) % 7] !== true) continue
    for (const time of times) if (day + time >= start && !take(day + time)) return
  }
}
