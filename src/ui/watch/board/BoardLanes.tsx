'use client'
import { scaleUtc } from 'd3-scale'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import { boardQuery, type Board } from '@/core/board'
import type { BoardPage } from '@/core/views'
import { hourWords } from '../../parts/hourWords'
import { EventLane } from './EventLane'
import { LaneDrawing } from './LaneDrawing'
import { metricWords, seriesWords, valueWords } from './seriesWords'

interface BoardLanesProps {
  readonly board: Board
  readonly page: BoardPage
}

const hour = 3_600_000
/** A drag of less is a click (share of the width). */
const leastDrag = 0.01
const labelPixels = 158

/** The lanes of a board on one axis of time, read at one instant by one cursor; dragging over them looks closer. */
export function BoardLanes({ board, page }: BoardLanesProps) {
  const router = useRouter()
  const area = useRef<HTMLDivElement>(null)
  const [cursor, put] = useState<number>()
  const [drag, setDrag] = useState<number>()
  const span = page.until - page.from
  const go = (changes: Partial<Board>) => router.push(`?${boardQuery({ ...board, ...changes })}`, { scroll: false })
  const look = (from: number, until: number) =>
    go({ until: Math.round(until), hours: Math.max(1, Math.round((until - from) / hour)) })
  const shareAt = (event: PointerEvent) => {
    const box = area.current?.getBoundingClientRect()
    if (box === undefined) return undefined
    const share = (event.clientX - box.left - labelPixels) / (box.width - labelPixels)
    return share < 0 || share > 1 ? undefined : share
  }
  const stepAt = (share: number) => Math.min(page.times.length - 1, Math.floor(share * page.times.length))
  const end = (event: PointerEvent) => {
    const share = shareAt(event)
    if (drag !== undefined && share !== undefined && Math.abs(share - drag) > leastDrag)
      look(page.from + Math.min(share, drag) * span, page.from + Math.max(share, drag) * span)
    setDrag(undefined)
  }
  const key = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1, PageUp: -20, PageDown: 20 }[event.key]
    const middle = page.times[cursor ?? -1] ?? page.from + span / 2
    if (event.key === 'Escape') put(undefined)
    else if (event.key === '+' || event.key === '=') look(middle - span / 4, middle + span / 4)
    else if (event.key === '-') look(middle - span, middle + span)
    else if (by !== undefined && event.shiftKey) look(page.from + (by * span) / 4, page.until + (by * span) / 4)
    else if (by !== undefined) put(Math.min(page.times.length - 1, Math.max(0, (cursor ?? page.times.length - 1) + by)))
    else return
    event.preventDefault()
  }
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
      <div
        ref={area}
        className="touch-pan-y select-none"
        onPointerMove={event => {
          const share = shareAt(event)
          put(share === undefined ? undefined : stepAt(share))
        }}
        onPointerLeave={() => put(undefined)}
        onPointerDown={event => setDrag(shareAt(event))}
        onPointerUp={end}
      >
        <TimeAxis page={page} />
        {page.lanes.map((lane, index) => (
          <div
            key={`${lane.asked.metric}.${lane.asked.objectId}.${index}`}
            data-lane
            className={`grid border-b border-l-2 border-b-rule-fine ${board.chosen === index ? 'border-l-action bg-action-wash' : 'border-l-transparent'}`}
            style={{ gridTemplateColumns: `${labelPixels}px 1fr` }}
          >
            <div className="min-w-0 py-2 pr-2 pl-2">
              <Link
                className="block truncate font-semibold no-underline"
                href={`?${boardQuery({ ...board, chosen: index })}`}
                scroll={false}
                title={seriesWords(lane.of)}
              >
                {lane.of?.name ?? 'gone'}
              </Link>
              <div className="text-xs text-second">{metricWords(lane.asked.metric)}</div>
              {lane.over !== null && (
                <div className="truncate text-xs" style={{ color: 'var(--d3)' }} title={seriesWords(lane.over.of)}>
                  over it: {lane.over.of?.name ?? 'gone'}
                </div>
              )}
              {lane.asked.shiftDays !== 0 && (
                <div className="text-xs text-second">thin: {Math.abs(lane.asked.shiftDays)} days before</div>
              )}
              {lane.usual !== null && <div className="text-xs text-second">band: usual at that hour</div>}
            </div>
            <LaneDrawing lane={lane} cursor={cursor} />
          </div>
        ))}
        <EventLane page={page} labelPixels={labelPixels} />
      </div>
    </div>
  )
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
    ({ of, asked, values }) => `${of?.name ?? 'gone'} ${valueWords(asked.metric, values[cursor])}`,
  )
  return `${hourWords(at)}  ${said.join('  ')}`
}
