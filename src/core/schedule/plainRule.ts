const minuteMilliseconds = 60_000
const hourMilliseconds = 60 * minuteMilliseconds
const dayMilliseconds = 24 * hourMilliseconds
const weekdays = ['SU', 'MO', 'TU', 'WE', 'TH', 'FR', 'SA']
const units = new Map([
  ['DAILY', dayMilliseconds],
  ['WEEKLY', dayMilliseconds],
  ['HOURLY', hourMilliseconds],
  ['MINUTELY', minuteMilliseconds],
])

/** A rule of equal steps: every how many days, hours or minutes, at which times within each, on which days, hours and minutes. */
export interface PlainRule {
  /** A day, an hour or a minute, in milliseconds. */
  readonly unit: number
  readonly everyUnits: number
  /** How often it happens at all, from its beginning; undefined without an end. */
  readonly count: number | undefined
  /** Days of the week that count, Sunday first; undefined for all. */
  readonly isOn: readonly boolean[] | undefined
  /** Months that count, January is 1; undefined for all. */
  readonly months: ReadonlySet<number> | undefined
  /** Days of the month that count, negative ones from its end; undefined for all. */
  readonly monthDays: ReadonlySet<number> | undefined
  /** Hours of the day that count, where steps are shorter than a day; undefined for all. */
  readonly hours: ReadonlySet<number> | undefined
  /** Minutes of the hour that count, where steps are shorter than an hour; undefined for all. */
  readonly minutes: ReadonlySet<number> | undefined
  /** Milliseconds since the unit began, ascending. */
  readonly times: readonly number[]
}

const allowed = /^(?:FREQ|INTERVAL|COUNT|BYMONTH|BYMONTHDAY|BYDAY|BYHOUR|BYMINUTE|BYSECOND|WKST)$/
const isWithin = (values: readonly number[] | undefined, least: number, most: number) =>
  values === undefined || values.every(each => Number.isInteger(each) && each >= least && each <= most)
/** Not negative before 1970 either. */
const modulo = (value: number, by: number) => ((value % by) + by) % by
const setOf = (values: readonly number[] | undefined) => (values === undefined ? undefined : new Set(values))

/**
 * What nearly every schedule is, read for arithmetic: days, weeks, hours or minutes at some times within them. @returns undefined for a rule
 * that says more; that is expanded by the library, which takes some microseconds a date from the very first one on
 */
export function plainRule(rule: string, start: number): PlainRule | undefined {
  const parts = new Map(rule.split(';').map(part => part.split('=', 2) as [string, string]))
  const numbers = (name: string) => parts.get(name)?.split(',').map(Number)
  const [everyUnits = 1, ...more] = numbers('INTERVAL') ?? []
  const [count, ...moreCounts] = numbers('COUNT') ?? []
  const days = parts.get('BYDAY')?.split(',')
  const [freq, unit] = [parts.get('FREQ'), units.get(parts.get('FREQ') ?? '')]
  const [months, monthDays] = [numbers('BYMONTH'), numbers('BYMONTHDAY')]
  const [hours, minutes, seconds] = [numbers('BYHOUR'), numbers('BYMINUTE'), numbers('BYSECOND')]
  if (unit === undefined || ![...parts.keys()].every(each => allowed.test(each))) return undefined
  // Weeks are days of the week, as long as every week counts.
  if (freq === 'WEEKLY' && (everyUnits !== 1 || days === undefined || monthDays !== undefined)) return undefined
  if (more.length + moreCounts.length > 0 || !isWithin([everyUnits, count ?? 1], 1, 1e9)) return undefined
  if (days?.some(each => !weekdays.includes(each)) === true) return undefined
  if (!isWithin(months, 1, 12) || !isWithin(monthDays, -31, 31)) return undefined
  if (!isWithin(hours, 0, 23) || !isWithin(minutes, 0, 59) || !isWithin(seconds, 0, 59)) return undefined
  const at = new Date(start)
  // What is longer than a step keeps steps out; what is shorter says when within them.
  const ofHours = unit > hourMilliseconds ? (hours ?? [at.getUTCHours()]) : [0]
  const ofMinutes = unit > minuteMilliseconds ? (minutes ?? [at.getUTCMinutes()]) : [0]
  const times = ofHours.flatMap(h =>
    ofMinutes.flatMap(m => (seconds ?? [at.getUTCSeconds()]).map(s => ((h * 60 + m) * 60 + s) * 1000)),
  )
  return {
    unit,
    everyUnits,
    count,
    months: setOf(months),
    monthDays: setOf(monthDays),
    isOn: days === undefined ? undefined : weekdays.map(each => days.includes(each)),
    hours: unit > hourMilliseconds ? undefined : setOf(hours),
    minutes: unit > minuteMilliseconds ? undefined : setOf(minutes),
    times: [...new Set(times)].sort((a, b) => a - b),
  }
}

/** Whether its day counts. @param step local, in milliseconds */
function isDay({ isOn, months, monthDays }: PlainRule, step: number): boolean {
  // The first day of 1970 was a Thursday.
  if (isOn !== undefined && isOn[modulo(Math.floor(step / dayMilliseconds) + 4, 7)] !== true) return false
  if (months === undefined && monthDays === undefined) return true
  const at = new Date(step)
  if (months?.has(at.getUTCMonth() + 1) === false) return false
  if (monthDays === undefined || monthDays.has(at.getUTCDate())) return true
  const inMonth = new Date(Date.UTC(at.getUTCFullYear(), at.getUTCMonth() + 1, 0)).getUTCDate()
  return monthDays.has(at.getUTCDate() - inMonth - 1)
}

/** Whether its hour and minute count. @param step local, in milliseconds */
function isTime({ hours, minutes }: PlainRule, step: number): boolean {
  const minute = Math.floor(step / minuteMilliseconds)
  return hours?.has(modulo(Math.floor(minute / 60), 24)) !== false && minutes?.has(modulo(minute, 60)) !== false
}

/**
 * Local times of a plain rule in their order. All times are milliseconds, as if local ones were UTC.
 * @param from before which nothing is asked for: whole steps until then are passed over
 * @param to after which nothing is
 * @param take says whether to go on
 */
export function eachLocal(
  rule: PlainRule,
  start: number,
  { from, to }: { readonly from: number; readonly to: number },
  take: (local: number) => boolean,
): void {
  const length = rule.everyUnits * rule.unit
  const first = Math.floor(start / rule.unit) * rule.unit
  // What is counted is counted from the first one on.
  const passed = rule.count === undefined ? Math.max(0, Math.floor((from - first) / length)) : 0
  let left = rule.count ?? Infinity
  for (let step = first + passed * length; step <= to; step += length) {
    if (!isDay(rule, step)) {
      const nextDay = (Math.floor(step / dayMilliseconds) + 1) * dayMilliseconds
      step += Math.max(0, Math.ceil((nextDay - step) / length) - 1) * length
      continue
    }
    if (!isTime(rule, step)) continue
    for (const time of rule.times) {
      if (step + time < start) continue
      if (!take(step + time)) return
      left -= 1
      if (left === 0) return
    }
  }
}
