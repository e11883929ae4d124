'use client'
import { useMemo, useState, type KeyboardEvent, type PointerEvent } from 'react'
import { drawnDays, fanOn, type NoOutlook, type Outlook } from '@/core/capacity'
import type { DailyLevels } from '@/core/metrics'
import { GrowthLines } from './GrowthLines'
import { daysOf, growthShape, type DayPoint } from './growthShape'
import { bytesWords, dayWords, growthInWords } from './growthWords'

const width = 560
const height = 236
const frame = { left: 46, right: width - 6, top: 22, bottom: height - 22 }
const dayMilliseconds = 86_400_000

interface GrowthChartProps {
  readonly name: string
  readonly levels: DailyLevels
  readonly outlook: Outlook | NoOutlook
}

/** What a pool held by day, and the fan of what is likely, with a cursor that reads any day of both. */
export function GrowthChart({ name, levels, outlook }: GrowthChartProps) {
  const days = useMemo(() => daysOf(levels), [levels])
  const shape = useMemo(() => growthShape(days, outlook, frame), [days, outlook])
  const { cursor, first, last, follow, leave, step } = useDay(days, outlook.today)
  const read = cursor === undefined ? undefined : reading(cursor, days, outlook)
  return (
    <figure className="m-0">
      <h3>
        {name} <span>by day, then what is likely: P10–P90 for 60 days</span>
      </h3>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        className="block w-full touch-pan-y"
        role="slider"
        tabIndex={0}
        aria-label={`${name}: ${growthInWords(outlook, days)}`}
        aria-valuemin={first}
        aria-valuemax={last}
        aria-valuenow={cursor ?? outlook.today}
        aria-valuetext={read?.words ?? 'Arrow keys read a day'}
        onPointerMove={follow}
        onPointerLeave={leave}
        onKeyDown={step}
      >
        <GrowthLines shape={shape} outlook={outlook} />
        {cursor !== undefined && <Cursor x={shape.x(cursor)} />}
      </svg>
      <div className="min-h-[18px] text-xs text-second" aria-live="polite">
        {read?.words ?? stepWords(outlook)}
      </div>
    </figure>
  )
}

/** The day on which the cursor stands, by pointer or by keys. */
function useDay(days: readonly DayPoint[], today: number) {
  const [cursor, put] = useState<number>()
  const first = days[0]?.at ?? today
  const last = today + drawnDays * dayMilliseconds
  const within = (at: number) => Math.min(last, Math.max(first, Math.round(at / dayMilliseconds) * dayMilliseconds))
  const leave = () => put(undefined)
  const follow = (event: PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect()
    const inside = ((event.clientX - box.left) / box.width) * width
    const share = (inside - frame.left) / (frame.right - frame.left)
    put(within(first + share * (last - first)))
  }
  const step = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1, PageUp: -7, PageDown: 7 }[event.key]
    if (event.key === 'Escape') return leave()
    if (by === undefined) return
    event.preventDefault()
    put(within((cursor ?? today) + by * dayMilliseconds))
  }
  return { cursor, first, last, follow, leave, step }
}

const Cursor = ({ x }: { readonly x: number }) => (
  <line x1={x} x2={x} y1={frame.top} y2={frame.bottom} stroke="var(--action)" strokeDasharray="2 2" />
)

/** What is known, or likely, of a day. */
function reading(at: number, days: readonly DayPoint[], outlook: Outlook | NoOutlook): { readonly words: string } {
  const day = days.find(each => each.at === at)
  if (day !== undefined)
    return { words: `${dayWords(at)}: ${day.isGap ? 'nothing was measured' : bytesWords(day.bytes)}` }
  if ('why' in outlook) return { words: `${dayWords(at)}: nothing can be said` }
  const { p10, p50, p90 } = fanOn(outlook, Math.round((at - outlook.today) / dayMilliseconds))
  return { words: `${dayWords(at)}: ${bytesWords(p50)} is likely, between ${bytesWords(p10)} and ${bytesWords(p90)}` }
}

function stepWords(outlook: Outlook | NoOutlook): string {
  if ('why' in outlook)
    return outlook.why === 'too few days'
      ? 'What comes is told once fourteen days have been measured.'
      : 'What comes is told once fourteen days have passed since its size has jumped.'
  const step = outlook.stepAt === null ? '' : ` Its size jumped on ${dayWords(outlook.stepAt)}: the trend begins there.`
  return `The trend rests on ${outlook.windowDays} days.${step}`
}
