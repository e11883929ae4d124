'use client'
import { useMemo, useState, type KeyboardEvent, type PointerEvent } from 'react'
import { drawnDays, fanOn, type NoOutlook, type Outlook } from '@/core/capacity'
import type { DailyLevels } from '@/core/metrics'
import { formatBytes } from '@/core/units'
import { daysOf, growthShape, type DayPoint, type GrowthShape } from './growthShape'

const width = 560
const height = 236
const frame = { left: 46, right: width - 6, top: 22, bottom: height - 22 }
const dayMilliseconds = 86_400_000

interface GrowthChartProps {
  readonly name: string
  readonly levels: DailyLevels
  readonly outlook: Outlook | NoOutlook
}

const bytesWords = (bytes: number) => formatBytes(BigInt(Math.round(bytes)))
const dayWords = (at: number) =>
  new Date(at).toLocaleDateString('en', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' })

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
        aria-label={`${name}: ${inWords(outlook, days)}`}
        aria-valuemin={first}
        aria-valuemax={last}
        aria-valuenow={cursor ?? outlook.today}
        aria-valuetext={read?.words ?? 'Arrow keys read a day'}
        onPointerMove={follow}
        onPointerLeave={leave}
        onKeyDown={step}
      >
        <Grid shape={shape} />
        <Limit shape={shape} outlook={outlook} />
        <Fan shape={shape} />
        <path d={shape.past} fill="none" stroke="var(--ink)" strokeWidth={1.5} strokeLinejoin="round" />
        <Today shape={shape} outlook={outlook} />
        <Due shape={shape} outlook={outlook} />
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

const Fan = ({ shape: { fan } }: PartProps) =>
  fan === undefined ? null : (
    <>
      <path d={fan.area} fill="var(--soon)" opacity={0.25} />
      <path d={fan.middle} fill="none" stroke="var(--soon)" strokeWidth={1.5} />
    </>
  )

interface PartProps {
  readonly shape: GrowthShape
}
interface OutlookPartProps extends PartProps {
  readonly outlook: Outlook | NoOutlook
}

const Grid = ({ shape }: PartProps) => (
  <>
    {shape.levels.map(level => (
      <g key={level}>
        <line x1={frame.left} x2={frame.right} y1={shape.y(level)} y2={shape.y(level)} stroke="var(--rule-fine)" />
        <text
          x={frame.left - 6}
          y={shape.y(level) + 3.5}
          textAnchor="end"
          style={{ fill: 'var(--second)', fontSize: 10.5 }}
        >
          {axisWords(level)}
        </text>
      </g>
    ))}
    {shape.ticks.map(({ at, words }) => (
      <g key={at}>
        <line x1={shape.x(at)} x2={shape.x(at)} y1={frame.bottom} y2={frame.bottom + 4} stroke="var(--faint)" />
        <text x={shape.x(at)} y={height - 4} textAnchor="middle" style={{ fill: 'var(--second)', fontSize: 10.5 }}>
          {words}
        </text>
      </g>
    ))}
  </>
)

const axisWords = (bytes: number) => bytesWords(bytes).replace(/\.0+ /, ' ')

const Limit = ({ shape, outlook }: OutlookPartProps) => (
  <>
    <line
      x1={frame.left}
      x2={frame.right}
      y1={shape.y(outlook.limitBytes)}
      y2={shape.y(outlook.limitBytes)}
      stroke="var(--now)"
      strokeDasharray="5 3"
      strokeWidth={1.3}
    />
    <text x={frame.left + 4} y={shape.y(outlook.limitBytes) - 5} style={{ fill: 'var(--second)', fontSize: 10.5 }}>
      limit: 90% of what volumes can have, {bytesWords(outlook.limitBytes)}
    </text>
  </>
)

const Today = ({ shape, outlook }: OutlookPartProps) => (
  <>
    <line
      x1={shape.x(outlook.today)}
      x2={shape.x(outlook.today)}
      y1={frame.top + 14}
      y2={frame.bottom}
      stroke="var(--faint)"
    />
    <circle cx={shape.x(outlook.today)} cy={shape.y(outlook.usedBytes)} r={2.8} fill="var(--ink)" />
    <text
      x={shape.x(outlook.today) - 5}
      y={frame.bottom - 6}
      textAnchor="end"
      style={{ fill: 'var(--second)', fontSize: 10.5 }}
    >
      today {bytesWords(outlook.usedBytes)}
    </text>
  </>
)

/** The day on which the limit is likely to be reached, where the drawing reaches so far. */
function Due({ shape, outlook }: OutlookPartProps) {
  if ('why' in outlook) return null
  const { p50 } = outlook.reachesLimit
  if (p50 === null || p50 === 0 || p50 > drawnDays) return null
  const at = outlook.today + p50 * dayMilliseconds
  const isLate = p50 > 45
  return (
    <>
      <line
        x1={shape.x(at)}
        x2={shape.x(at)}
        y1={frame.top - 2}
        y2={shape.y(outlook.limitBytes)}
        stroke="var(--soon)"
        strokeDasharray="2 2"
      />
      <circle cx={shape.x(at)} cy={shape.y(outlook.limitBytes)} r={3.6} fill="var(--soon)" />
      <text
        x={shape.x(at) + (isLate ? -5 : 5)}
        y={frame.top - 6}
        textAnchor={isLate ? 'end' : 'start'}
        fontWeight={600}
        style={{ fontSize: 12.5 }}
      >
        {dayWords(at)}
      </text>
    </>
  )
}

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

function inWords(outlook: Outlook | NoOutlook, days: readonly DayPoint[]): string {
  const past = `${bytesWords(days[0]?.bytes ?? 0)} ${days.length} days ago, ${bytesWords(outlook.usedBytes)} today`
  if ('why' in outlook) return past
  const { p50 } = outlook.reachesLimit
  const due = p50 === null ? 'its limit is not within reach' : `its limit is reached in ${p50} days`
  return `${past}; ${due}`
}
