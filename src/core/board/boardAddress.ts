import { isUuid } from '../input'
import { metricNames, type MetricName } from '../metrics'

/** A series that stands on a board. */
export interface SeriesAsked {
  readonly metric: MetricName
  readonly objectId: string
}

/** A series laid over another. */
export interface OverAsked extends SeriesAsked {
  /** From its own least to its own most, so that courses of unlike size and unit can be compared; else on the scale of the lane. */
  readonly isOwnScale?: boolean
}

/** One lane of a board: a series, what is laid over it, and how it is looked at. */
export interface LaneAsked extends SeriesAsked {
  /** Another series; null for none. */
  readonly over: OverAsked | null
  /** The same series of so many days before, beside it; 0 for none. */
  readonly shiftDays: number
  /** The band of what is usual at that hour of the week. */
  readonly isUsualShown: boolean
}

export interface Board {
  readonly lanes: readonly LaneAsked[]
  /** How long it looks at (hours), and until when (milliseconds since 1970); null for now. */
  readonly hours: number
  readonly until: number | null
  /** The lane that is looked into. */
  readonly chosen: number | null
}

/** More lanes than these are not read side by side. */
export const mostLanes = 12
const mostShift = 60
const spans = { least: 1, most: 24 * 70, usual: 72 }

const seriesText = ({ metric, objectId }: SeriesAsked) => `${metric}.${objectId}`

function seriesOf(text: string): SeriesAsked | undefined {
  const [metric = '', objectId = ''] = text.split('.')
  const known = metricNames.find(each => each === metric)
  return known === undefined || !isUuid(objectId) ? undefined : { metric: known, objectId }
}

const laneText = ({ over, shiftDays, isUsualShown, ...series }: LaneAsked) =>
  [
    seriesText(series),
    ...(over === null ? [] : [`${over.isOwnScale === true ? 'beside' : 'over'}~${seriesText(over)}`]),
    ...(shiftDays === 0 ? [] : [`shift~${shiftDays}`]),
    ...(isUsualShown ? ['usual'] : []),
  ].join('*')

function laneOf(text: string): LaneAsked | undefined {
  const [first = '', ...more] = text.split('*')
  const series = seriesOf(first)
  if (series === undefined) return undefined
  const value = (name: string) => more.find(each => each.startsWith(`${name}~`))?.slice(name.length + 1)
  const shift = Number(value('shift') ?? 0)
  const beside = seriesOf(value('beside') ?? '')
  return {
    ...series,
    over: beside === undefined ? (seriesOf(value('over') ?? '') ?? null) : { ...beside, isOwnScale: true },
    shiftDays: Number.isInteger(shift) && Math.abs(shift) <= mostShift ? shift : 0,
    isUsualShown: more.includes('usual'),
  }
}

/** Lanes from the text of an address: what is none is left out, and so is a series that stands there already. */
const lanesOf = (text: string): LaneAsked[] =>
  text
    .split('_')
    .map(laneOf)
    .filter(lane => lane !== undefined)
    .filter((lane, at, all) => all.findIndex(each => seriesText(each) === seriesText(lane)) === at)
    .slice(0, mostLanes)

const numberIn = (text: string | undefined, least: number, most: number): number | null => {
  const value = Number(text)
  return text === undefined || text === '' || !Number.isFinite(value) || value < least || value > most ? null : value
}

/** A board from its address: all of it stands there, so that the address is the board. */
export function readBoard(params: Readonly<Record<string, string | undefined>>): Board {
  const lanes = lanesOf(params['lanes'] ?? '')
  const chosen = numberIn(params['lane'], 0, lanes.length - 1)
  return {
    lanes,
    hours: numberIn(params['hours'], spans.least, spans.most) ?? spans.usual,
    until: numberIn(params['until'], 0, 8.64e15),
    chosen: chosen === null || !Number.isInteger(chosen) ? null : chosen,
  }
}

/** The address of a board, as a query. */
export function boardQuery({ lanes, hours, until, chosen }: Board): string {
  const query = new URLSearchParams()
  if (lanes.length > 0) query.set('lanes', lanes.map(laneText).join('_'))
  if (hours !== spans.usual) query.set('hours', `${hours}`)
  if (until !== null) query.set('until', `${until}`)
  if (chosen !== null) query.set('lane', `${chosen}`)
  return query.toString()
}
