import { max } from 'd3-array'
import { scaleLinear, scalePoint } from 'd3-scale'
import { DateTime } from 'luxon'
import { retentionRules, type RetentionRule } from '@/core/retention'
import type { Judged } from '@/core/snapshots'

/** Lanes from the longest reach to the shortest; only those that a class has, and the one for what keeps a snapshot besides. */
const laneOrder: readonly RetentionRule[] = [...retentionRules].reverse()

const leastStepPixels = 12
const mostStepPixels = 44
const labelPixels = 104
const lanePixels = 23
const topPixels = 30
const barPixels = 70

export interface Columns {
  readonly widthPixels: number
  readonly heightPixels: number
  readonly labelPixels: number
  readonly lanes: readonly { readonly lane: RetentionRule | 'besides'; readonly y: number }[]
  /** Where the lanes end and own space begins. */
  readonly baseY: number
  readonly stepPixels: number
  readonly columns: readonly {
    readonly id: string
    readonly x: number
    readonly notes: readonly { readonly lane: RetentionRule; readonly y: number }[]
    /** Something keeps it besides its rules: a hold, a clone, a host. */
    readonly besidesY: number | null
    readonly barPixels: number
    /** The day, where it is another than that of the column before and there is room for it. */
    readonly day: string | null
  }[]
}

/** Where a volume's snapshots stand, a column each, oldest at the left. Nothing is drawn here. */
export function snapshotColumns(all: readonly Judged[], widthPixels: number, timeZone: string): Columns {
  const lanes = lanesOf(all)
  const yOf = new Map(lanes.map(({ lane, y }) => [lane, y]))
  const baseY = topPixels + Math.max(1, lanes.length) * lanePixels + 6
  const room = widthPixels - labelPixels - 16
  const step = Math.min(mostStepPixels, Math.max(leastStepPixels, room / Math.max(1, all.length)))
  const x = scalePoint(
    all.map(({ snapshot }) => snapshot.id),
    [labelPixels + step / 2, labelPixels + step / 2 + step * Math.max(0, all.length - 1)],
  )
  const most = max(all, ({ snapshot }) => Number(snapshot.ownBytes)) ?? 0
  const bar = scaleLinear([0, Math.max(1, most)], [0, barPixels])
  let shownAt = -Infinity
  let shownDay = ''
  const columns = all.map(judged => {
    const { snapshot, rules } = judged
    const at = x(snapshot.id) ?? 0
    const day = snapshot.takenAt === null ? 'pending' : dayOf(snapshot.takenAt, timeZone)
    const isShown = day !== shownDay && at - shownAt >= 46
    if (isShown) shownAt = at
    if (isShown) shownDay = day
    return {
      id: snapshot.id,
      x: at,
      notes: rules.map(lane => ({ lane, y: yOf.get(lane) ?? 0 })),
      besidesY: isKeptBesides(judged) ? (yOf.get('besides') ?? null) : null,
      barPixels: snapshot.ownBytes === 0n ? 0 : Math.max(2, bar(Number(snapshot.ownBytes))),
      day: isShown ? day : null,
    }
  })
  const needed = labelPixels + step * all.length + 16
  return {
    widthPixels: Math.max(widthPixels, needed),
    heightPixels: baseY + barPixels + 18,
    labelPixels,
    lanes,
    baseY,
    stepPixels: step,
    columns,
  }
}

/** A lane for every rule that keeps one of them, and one for what keeps some besides. */
function lanesOf(all: readonly Judged[]) {
  const used = laneOrder.filter(lane => all.some(({ rules }) => rules.includes(lane)))
  const besides = all.some(isKeptBesides) ? (['besides'] as const) : []
  return [...used, ...besides].map((lane, index) => ({ lane, y: topPixels + index * lanePixels + lanePixels / 2 }))
}

/** Whether something keeps a snapshot besides its rules. */
const isKeptBesides = ({ snapshot, clones, shownTo }: Judged): boolean =>
  snapshot.heldReason !== null || clones.length > 0 || shownTo.length > 0

const dayOf = (at: string, timeZone: string) => {
  const moment = DateTime.fromISO(at, { zone: timeZone })
  return moment.toFormat('d LLL')
}

/** What keeps a snapshot, in words. */
export function keptInWords(judged: Judged): string {
  const { snapshot, rules, clones, shownTo } = judged
  if (snapshot.goesAt !== null) return `nothing: it goes ${snapshot.goesAt.slice(0, 16).replace('T', ' ')} UTC`
  const words = [
    ...rules.map(rule => (rule === 'keepLast' ? 'the last ones' : rule)),
    ...(snapshot.heldReason === null ? [] : [`held: ${snapshot.heldReason}`]),
    ...clones.map(name => `clone ${name}`),
    ...shownTo.map(name => `shown to ${name}`),
  ]
  if (words.length > 0) return words.join(', ')
  return snapshot.dueAt === null ? 'whoever took it: no rule removes it' : 'no rule: it goes with the next look'
}
