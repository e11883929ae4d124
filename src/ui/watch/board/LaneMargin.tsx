'use client'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { boardQuery, type Board, type LaneAsked } from '@/core/board'
import type { BoardPage, Lane, MovesWith } from '@/core/views'
import { Margin } from '../../frame'
import { Tick } from '../../parts/Checkbox'
import { hourWords } from '../../parts/hourWords'
import { SelectField } from '../../parts/Select'
import { State } from '../../parts/State'
import { lagWords, metricWords, seriesWords } from './seriesWords'

interface LaneMarginProps {
  readonly board: Board
  readonly page: BoardPage
}

const shifts = [0, -1, -7, -14, -28]
const none = 'none'

/** The lane that is chosen: what it moves with, when it left its usual band, and how it is looked at. */
export function LaneMargin({ board, page }: LaneMarginProps) {
  const router = useRouter()
  const index = board.chosen ?? -1
  const lane = page.lanes[index]
  if (lane === undefined) return null
  const go = (next: Partial<Board>) => router.push(`?${boardQuery({ ...board, ...next })}`, { scroll: false })
  const alter = (more: Partial<LaneAsked>) =>
    go({ lanes: board.lanes.map((each, at) => (at === index ? { ...each, ...more } : each)) })
  const move = (by: number) => {
    const lanes = [...board.lanes]
    const [own] = lanes.splice(index, 1)
    if (own !== undefined) lanes.splice(index + by, 0, own)
    go({ lanes, chosen: index + by })
  }
  return (
    <Margin
      foot={
        <>
          <button type="button" className="button quiet" disabled={index === 0} onClick={() => move(-1)}>
            Up
          </button>
          <button
            type="button"
            className="button quiet"
            disabled={index === board.lanes.length - 1}
            onClick={() => move(1)}
          >
            Down
          </button>
          <button
            type="button"
            className="button quiet"
            onClick={() => go({ lanes: board.lanes.filter((_, at) => at !== index), chosen: null })}
          >
            Take it off
          </button>
        </>
      }
    >
      <h2 className="pr-12 break-words">{lane.of?.name ?? 'An object that is gone'}</h2>
      <div className="text-second">{metricWords(lane.asked.metric)}</div>
      <LeftUsual lane={lane} times={page.times} />
      <Moves moving={page.moving} board={board} />
      <h3>This lane</h3>
      <SelectField
        label="Laid over it, on the same scale"
        value={lane.asked.over === null ? none : `${lane.asked.over.metric}.${lane.asked.over.objectId}`}
        options={overOptions(page, index)}
        onChange={value => {
          const [metric, objectId] = value.split('.')
          const found = board.lanes.find(each => each.metric === metric && each.objectId === objectId)
          alter({ over: found === undefined ? null : { metric: found.metric, objectId: found.objectId } })
        }}
      />
      <SelectField
        label="Beside it, itself before"
        value={`${lane.asked.shiftDays}`}
        options={shifts.map(days => ({
          value: `${days}`,
          words: days === 0 ? 'nothing' : days === -1 ? 'a day' : `${-days} days`,
        }))}
        onChange={value => alter({ shiftDays: Number(value) })}
      />
      <Tick isOn={lane.asked.isUsualShown} onChange={isUsualShown => alter({ isUsualShown })}>
        The band of what is usual at that hour of the week
      </Tick>
    </Margin>
  )
}

const overOptions = (page: BoardPage, index: number) => [
  { value: none, words: 'nothing' },
  ...page.lanes.flatMap(({ of, asked }, at) =>
    at === index || of === undefined ? [] : [{ value: `${asked.metric}.${asked.objectId}`, words: seriesWords(of) }],
  ),
]

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

function Moves({ moving, board }: { readonly moving: readonly MovesWith[]; readonly board: Board }) {
  if (moving.length === 0) return null
  const isOnBoard = ({ of }: MovesWith) =>
    board.lanes.some(each => each.metric === of.metric && each.objectId === of.objectId)
  return (
    <>
      <h3>
        Moves with <span>changes from step to step</span>
      </h3>
      {moving.map(each => (
        <div
          key={`${each.of.metric}.${each.of.objectId}`}
          className="grid grid-cols-[1fr_96px_44px] items-center gap-2 border-b border-rule-fine py-[5px]"
        >
          <div className="min-w-0">
            {isOnBoard(each) ? (
              <span className="block truncate font-semibold">{seriesWords(each.of)}</span>
            ) : (
              <Link
                className="textlink block truncate"
                scroll={false}
                href={`?${boardQuery({
                  ...board,
                  lanes: [
                    ...board.lanes,
                    {
                      metric: each.of.metric,
                      objectId: each.of.objectId,
                      over: null,
                      shiftDays: 0,
                      isUsualShown: false,
                    },
                  ],
                })}`}
              >
                {seriesWords(each.of)}
              </Link>
            )}
            <span className="text-xs text-second">{each.isTold ? lagWords(each.lagMinutes) : 'too weak to tell'}</span>
          </div>
          <LagCurve byLag={each.byLag} />
          <span className={`mono text-right ${each.isTold ? '' : 'text-faint'}`}>{each.strength.toFixed(2)}</span>
        </div>
      ))}
      <p className="text-xs text-second">
        Moving together is not a cause. The lag is that at which both move most alike.
      </p>
    </>
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
