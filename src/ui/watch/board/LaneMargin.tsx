'use client'
import { alterLane, laneIndex, moveLane, takeOff, type Board, type LaneAsked, type SeriesAsked } from '@/core/board'
import { metrics } from '@/core/metrics'
import type { BoardPage, Lane, MovesWith } from '@/core/views'
import { Margin } from '../../frame'
import { Tick } from '../../parts/Checkbox'
import { hourWords } from '../../parts/hourWords'
import { SelectField } from '../../parts/Select'
import { State } from '../../parts/State'
import { useBoard } from './OneBoard'
import { SeriesLink } from './SeriesLink'
import { lagWords, laneKey, metricWords, seriesWords } from './seriesWords'

const shifts = [0, -1, -7, -14, -28]
const none = 'none'

interface OfLane {
  readonly page: BoardPage
  readonly lane: Lane
}

/** The lane that is chosen: what it moves with, when it left its usual band, and how it is looked at. */
export function LaneMargin({ page, index }: { readonly page: BoardPage; readonly index: number }) {
  const lane = page.lanes[index]
  if (lane === undefined) return null
  return (
    <Margin foot={<LaneActs lane={lane} />}>
      <h2 className="pr-12 break-words">{lane.of?.name ?? 'An object that is gone'}</h2>
      <div className="text-second">{metricWords(lane.asked.metric)}</div>
      <LeftUsual lane={lane} times={page.times} />
      <Moves moving={page.moving} />
      <h3>This lane</h3>
      <Looks page={page} lane={lane} />
    </Margin>
  )
}

/** Where a lane stands that the server has answered: others may have been moved before it since. */
const placeOn = (board: Board, { asked }: Lane) => laneIndex(board, asked)

function LaneActs({ lane }: { readonly lane: Lane }) {
  const { board, choose } = useBoard()
  const at = placeOn(board, lane)
  const move = (by: number) => choose(now => moveLane(now, placeOn(now, lane), placeOn(now, lane) + by))
  return (
    <>
      <button type="button" className="button quiet" disabled={at === 0} onClick={() => move(-1)}>
        Up
      </button>
      <button type="button" className="button quiet" disabled={at === board.lanes.length - 1} onClick={() => move(1)}>
        Down
      </button>
      <button
        type="button"
        className="button quiet"
        onClick={() => choose(now => ({ ...takeOff(now, placeOn(now, lane)), chosen: null }))}
      >
        Take it off
      </button>
    </>
  )
}

/** What is laid over it, what stands beside it, and whether its usual band is drawn. */
function Looks({ page, lane }: OfLane) {
  const { board, choose } = useBoard()
  const asked = board.lanes[placeOn(board, lane)] ?? lane.asked
  const { over } = asked
  const alter = (more: Partial<LaneAsked>) => choose(now => alterLane(now, placeOn(now, lane), more))
  return (
    <>
      <SelectField
        label="Laid over it"
        value={over === null ? none : laneKey(over)}
        options={overOptions(page, lane)}
        onChange={value => {
          if (over !== null && value === laneKey(over)) return
          const found = page.lanes.find(each => laneKey(each.asked) === value)
          alter({ over: found === undefined ? null : laidOver(asked, found.asked) })
        }}
      />
      {over !== null && (
        <Tick
          isOn={over.isOwnScale === true}
          onChange={isOwnScale => alter({ over: { metric: over.metric, objectId: over.objectId, isOwnScale } })}
        >
          That one on a scale of its own, from its least to its most
        </Tick>
      )}
      <SelectField
        label="Beside it, itself before"
        value={`${asked.shiftDays}`}
        options={shifts.map(days => ({
          value: `${days}`,
          words: days === 0 ? 'nothing' : days === -1 ? 'a day' : `${-days} days`,
        }))}
        onChange={value => alter({ shiftDays: Number(value) })}
      />
      <Tick isOn={asked.isUsualShown} onChange={isUsualShown => alter({ isUsualShown })}>
        The band of what is usual at that hour of the week
      </Tick>
    </>
  )
}

/** What is of another unit can be read on a scale of its own only. */
const laidOver = (lane: SeriesAsked, { metric, objectId }: SeriesAsked) => ({
  ...{ metric, objectId },
  ...(metrics[metric].unit === metrics[lane.metric].unit ? {} : { isOwnScale: true }),
})

/** The other lanes of the board, and what is laid over this one already, which an address can say of a series that has no lane. */
function overOptions(page: BoardPage, { asked, over }: Lane) {
  const lanes = page.lanes.flatMap(({ of, asked: other }) =>
    laneKey(other) === laneKey(asked) || of === undefined ? [] : [{ value: laneKey(other), words: seriesWords(of) }],
  )
  const laid = asked.over === null ? [] : [{ value: laneKey(asked.over), words: seriesWords(over?.of) }]
  const isLane = lanes.some(({ value }) => value === laid[0]?.value)
  return [{ value: none, words: 'nothing' }, ...lanes, ...(isLane ? [] : laid)]
}

const shownLeft = 4

function LeftUsual({ lane, times }: { readonly lane: Lane; readonly times: readonly number[] }) {
  if (lane.usual === null) return null
  return (
    <>
      <h3>
        Out of the usual <span>P10–P90 of the hour in 8 weeks</span>
      </h3>
      {lane.left.length === 0 && <p className="mt-0 text-second">Never in this span.</p>}
      {lane.left.slice(0, shownLeft).map(({ from, to, side }) => (
        <div key={from} className="flex justify-between gap-3 border-b border-rule-fine py-[3px]">
          <State gravity={side === 'above' ? 'soon' : 'note'}>{side}</State>
          <span className="mono text-[12px]">
            {hourWords(times[from] ?? 0)} – {hourWords(times[to] ?? 0)}
          </span>
        </div>
      ))}
    </>
  )
}

function Moves({ moving }: { readonly moving: readonly MovesWith[] }) {
  if (moving.length === 0) return null
  return (
    <>
      <h3>
        Moves with <span>changes from step to step</span>
      </h3>
      {moving.map(each => (
        <MovesLine key={laneKey(each.of)} moving={each} />
      ))}
      <p className="text-xs text-second">
        Moving together is not a cause. The lag is that at which both move most alike.
      </p>
    </>
  )
}

/** How a series moves with this one; one that is not on the board yet can be put there. */
function MovesLine({ moving: { of, isTold, lagMinutes, byLag, strength } }: { readonly moving: MovesWith }) {
  const { board } = useBoard()
  return (
    <div className="grid grid-cols-[1fr_96px_44px] items-center gap-2 border-b border-rule-fine py-[5px]">
      <div className="min-w-0">
        {laneIndex(board, of) === -1 ? (
          <SeriesLink className="block truncate" series={of} called={seriesWords(of)}>
            {seriesWords(of)}
          </SeriesLink>
        ) : (
          <span className="block truncate font-semibold">{seriesWords(of)}</span>
        )}
        <span className="text-xs text-second">{isTold ? lagWords(lagMinutes) : 'too weak to tell'}</span>
      </div>
      <LagCurve byLag={byLag} />
      <span className={`mono text-right ${isTold ? '' : 'text-faint'}`}>{strength.toFixed(2)}</span>
    </div>
  )
}

/** How strongly both move together at each lag: before to the left, after to the right. */
function LagCurve({ byLag }: { readonly byLag: readonly number[] }) {
  const [width, height] = [96, 26]
  const x = (index: number) => (index / Math.max(1, byLag.length - 1)) * width
  const points = byLag
    .map((r, index) => `${x(index).toFixed(1)},${(height / 2 - (r * height) / 2).toFixed(1)}`)
    .join(' ')
  return (
    <svg viewBox={`0 0 ${width} ${height}`} className="block w-full" aria-hidden>
      <line x1={0} x2={width} y1={height / 2} y2={height / 2} stroke="var(--rule-fine)" />
      <line x1={width / 2} x2={width / 2} y1={0} y2={height} stroke="var(--second)" />
      <polyline points={points} fill="none" stroke="var(--ink)" />
    </svg>
  )
}
