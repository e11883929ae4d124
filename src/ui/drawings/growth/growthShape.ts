import { extent } from 'd3-array'
import { scaleLinear, scaleUtc } from 'd3-scale'
import { area, line } from 'd3-shape'
import { drawnDays, fanOn, type NoOutlook, type Outlook } from '@/core/capacity'
import type { DailyLevels } from '@/core/metrics'
import { roundLevels } from '../roundLevels'

const dayMilliseconds = 86_400_000
/** So far apart dates can be read beside each other. */
const tickPixels = 85

export interface DayPoint {
  /** Midnight, UTC (milliseconds since 1970). */
  readonly at: number
  readonly bytes: number
  readonly isGap: boolean
}

/** The days of a past, with those of which nothing was measured. */
export function daysOf({ firstDay, levels, gaps }: DailyLevels): DayPoint[] {
  const missing = new Set(gaps)
  return Array.from(levels, (bytes, index) => ({
    at: firstDay + index * dayMilliseconds,
    bytes,
    isGap: missing.has(index),
  }))
}

/** Where a drawing stands in its picture (pixels of the picture). */
export interface Frame {
  readonly left: number
  readonly right: number
  readonly top: number
  readonly bottom: number
}

export interface GrowthShape {
  readonly frame: Frame
  readonly x: (at: number) => number
  readonly y: (bytes: number) => number
  readonly past: string
  /** Undefined where nothing can be said of what comes. */
  readonly fan: { readonly area: string; readonly middle: string } | undefined
  readonly ticks: readonly { readonly at: number; readonly words: string }[]
  readonly levels: readonly number[]
}

const isKnown = (outlook: Outlook | NoOutlook): outlook is Outlook => !('why' in outlook)

/** Past and what is likely to come, in one frame from the lowest to the limit. A day without a measurement breaks the line. */
export function growthShape(days: readonly DayPoint[], outlook: Outlook | NoOutlook, frame: Frame): GrowthShape {
  const first = days[0]?.at ?? outlook.today
  const ahead = isKnown(outlook)
    ? Array.from({ length: drawnDays + 1 }, (_, index) => ({
        ...fanOn(outlook, index),
        at: outlook.today + index * dayMilliseconds,
      }))
    : []
  const [low = 0, high = 1] = extent([
    ...days.map(({ bytes }) => bytes),
    ...ahead.flatMap(({ p10, p90 }) => [p10, p90]),
    outlook.limitBytes,
  ])
  const room = (high - low) * 0.08 || high || 1
  const x = scaleUtc([first, outlook.today + drawnDays * dayMilliseconds], [frame.left, frame.right])
  const y = scaleLinear([Math.max(0, low - room), high + room], [frame.bottom, frame.top])
  const past = line<DayPoint>()
    .defined(({ isGap }) => !isGap)
    .x(({ at }) => x(at))
    .y(({ bytes }) => y(bytes))
  const band = area<(typeof ahead)[number]>()
    .x(({ at }) => x(at))
    .y0(({ p10 }) => y(p10))
    .y1(({ p90 }) => y(p90))
  const middle = line<(typeof ahead)[number]>()
    .x(({ at }) => x(at))
    .y(({ p50 }) => y(p50))
  return {
    frame,
    x,
    y,
    past: past([...days]) ?? '',
    fan: ahead.length === 0 ? undefined : { area: band(ahead) ?? '', middle: middle(ahead) ?? '' },
    ticks: x.ticks(Math.round((frame.right - frame.left) / tickPixels)).map(at => ({
      at: at.getTime(),
      words: at.toLocaleDateString('en', { month: 'short', day: 'numeric', timeZone: 'UTC' }),
    })),
    levels: roundLevels(y.domain(), 5),
  }
}
