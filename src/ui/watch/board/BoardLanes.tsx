'use client'
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { scaleUtc } from 'd3-scale'
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import type { SeriesAsked } from '@/core/board'
import type { MetricName } from '@/core/metrics'
import type { BoardPage, Lane } from '@/core/views'
import { hourWords } from '../../parts/hourWords'
import { EventLane } from './EventLane'
import { labelPixels, LaneRow } from './LaneRow'
import { useBoard } from './OneBoard'
import { laneKey, seriesWords, valueWords } from './seriesWords'

const hour = 3_600_000
/** A drag of less is a click (share of the width). */
const leastDrag = 0.01

/** The lanes of a board on one axis of time, read at one instant by one cursor; dragging over them looks closer. */
export function BoardLanes({ page }: { readonly page: BoardPage }) {
  const { board } = useBoard()
  const { cursor, key, area, pointer } = useCursor(page)
  const read = readingAt(page, cursor)
  return (
    <div>
      <div
        className="mono min-h-[26px] overflow-hidden border border-rule-fine bg-paper px-2 py-[3px] text-[12px] text-ellipsis whitespace-nowrap"
        role="slider"
        tabIndex={0}
        aria-label={`Lanes: ${page.lanes.map(({ of }) => seriesWords(of)).join('; ')}`}
        aria-valuemin={0}
        aria-valuemax={Math.max(0, page.times.length - 1)}
        aria-valuenow={cursor ?? Math.max(0, page.times.length - 1)}
        aria-valuetext={read ?? 'Arrow keys read an instant, plus and minus look closer and farther'}
        onKeyDown={key}
      >
        {read ?? (
          <span className="font-sans text-second">
            Point at an instant, or use the arrow keys; drag over a span to look closer.
          </span>
        )}
      </div>
      <div ref={area} className="touch-pan-y select-none" {...pointer}>
        <TimeAxis page={page} />
        <SortableContext items={board.lanes.map(laneKey)} strategy={verticalListSortingStrategy}>
          {board.lanes.map((asked, index) => (
            <LaneRow key={laneKey(asked)} asked={asked} lane={drawnOf(page, asked)} index={index} cursor={cursor} />
          ))}
        </SortableContext>
        <EventLane page={page} labelPixels={labelPixels} />
      </div>
    </div>
  )
}

/** What the server has answered of a lane; undefined while it has not. */
const drawnOf = ({ lanes }: BoardPage, series: SeriesAsked): Lane | undefined =>
  lanes.find(({ asked }) => laneKey(asked) === laneKey(series))

/** Where the cursor stands, and how pointer and keys move it, look closer and farther. */
function useCursor(page: BoardPage) {
  const { choose } = useBoard()
  const area = useRef<HTMLDivElement>(null)
  const [cursor, put] = useState<number>()
  const [drag, setDrag] = useState<number>()
  const last = page.times.length - 1
  const span = page.until - page.from
  const look = (from: number, until: number) => {
    const closer = { until: Math.round(until), hours: Math.max(1, Math.round((until - from) / hour)) }
    choose(now => ({ ...now, ...closer }))
  }
  const shareAt = (event: PointerEvent) => shareWithin(area.current, event)
  const pointer = {
    onPointerMove: (event: PointerEvent) => {
      const share = shareAt(event)
      put(share === undefined ? undefined : Math.min(last, Math.floor(share * page.times.length)))
    },
    onPointerLeave: () => put(undefined),
    onPointerDown: (event: PointerEvent) => setDrag(shareAt(event)),
    onPointerUp: (event: PointerEvent) => {
      const share = shareAt(event)
      if (drag !== undefined && share !== undefined && Math.abs(share - drag) > leastDrag)
        look(page.from + Math.min(share, drag) * span, page.from + Math.max(share, drag) * span)
      setDrag(undefined)
    },
  }
  const key = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1, PageUp: -20, PageDown: 20 }[event.key]
    const middle = page.times[cursor ?? -1] ?? page.from + span / 2
    if (event.key === 'Escape') put(undefined)
    else if (event.key === '+' || event.key === '=') look(middle - span / 4, middle + span / 4)
    else if (event.key === '-') look(middle - span, middle + span)
    else if (by !== undefined && event.shiftKey) look(page.from + (by * span) / 4, page.until + (by * span) / 4)
    else if (by !== undefined) put(Math.min(last, Math.max(0, (cursor ?? last) + by)))
    else return
    event.preventDefault()
  }
  return { cursor, area, pointer, key }
}

/** How far along the axis the pointer stands, from 0 to 1; undefined beside it. */
function shareWithin(area: HTMLElement | null, event: PointerEvent): number | undefined {
  const box = area?.getBoundingClientRect()
  if (box === undefined) return undefined
  const share = (event.clientX - box.left - labelPixels) / (box.width - labelPixels)
  return share < 0 || share > 1 ? undefined : share
}

/** Instants along the axis that all lanes have. */
function TimeAxis({ page: { from, until } }: { readonly page: BoardPage }) {
  const x = scaleUtc([from, until], [0, 100])
  const isShort = until - from < 2 * 24 * hour
  return (
    <div className="relative h-[18px] text-[10.5px] text-second" style={{ marginLeft: labelPixels }} aria-hidden>
      {x.ticks(6).map(tick => (
        <span
          key={tick.getTime()}
          className="absolute -translate-x-1/2 whitespace-nowrap"
          style={{ left: `${Math.min(96, Math.max(4, x(tick)))}%` }}
        >
          {tick.toLocaleString('en', {
            ...(isShort
              ? { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }
              : { day: 'numeric', month: 'short' }),
            weekday: 'short',
            timeZone: 'UTC',
          })}
        </span>
      ))}
    </div>
  )
}

/** What every lane says at one step. */
function readingAt(page: BoardPage, cursor: number | undefined): string | undefined {
  const at = page.times[cursor ?? -1]
  if (cursor === undefined || at === undefined) return undefined
  const said = page.lanes.map(
    ({ of, asked, values, extremes }) =>
      `${of?.name ?? 'gone'} ${valueWords(asked.metric, values[cursor])}${mostWords(asked.metric, values, extremes, cursor)}`,
  )
  return `${hourWords(at)}  ${said.join('  ')}`
}

/** The most of a step, where its mean hides one. */
function mostWords(metric: MetricName, values: Lane['values'], extremes: Lane['extremes'], cursor: number): string {
  const most = extremes?.high[cursor] ?? null
  return most === null || most === values[cursor] ? '' : ` (at most ${valueWords(metric, most)})`
}
