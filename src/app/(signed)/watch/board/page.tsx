import { Link } from '@/ui/parts/Link'
import type { ReactNode } from 'react'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { boardQuery, plainLane, readBoard, type Board } from '@/core/board'
import { countAtStart, formatSeconds } from '@/core/units'
import type { BoardPage } from '@/core/views'
import { estateNow } from '@/records/inventory'
import { boardPage, poolsByDate, slowest } from '@/records/queries'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { ServerLists } from '@/ui/table'
import { AddLane, BoardLanes, BoardTools, BringIn, LaneMargin, OneBoard } from '@/ui/watch/board'
import { watchParts } from '../parts'

export const metadata = { title: 'Board' }

export default async function Page({
  searchParams,
}: {
  readonly searchParams: Promise<Readonly<Record<string, string | undefined>>>
}) {
  const { scope } = await reader()
  const board = readBoard(await onlyTexts(searchParams))
  const page = await boardPage(scope, board, await estateNow(scope))
  return (
    <OneBoard board={board}>
      <Frame margin={board.chosen === null ? <About board={board} /> : <LaneMargin page={page} index={board.chosen} />}>
        <Title words="Watch">
          <SubSections of={watchParts} />
        </Title>
        <Sentence page={page} />
        <ServerLists>
          {board.lanes.length > 0 && (
            <>
              <BoardTools page={page} />
              <BoardLanes page={page} />
            </>
          )}
          <AddLane />
        </ServerLists>
      </Frame>
    </OneBoard>
  )
}

/** Too much is worth a look before too little. */
const weightOf = ({ from, to, side }: BoardPage['lanes'][number]['left'][number]) =>
  (to - from + 1) * (side === 'above' ? 10 : 1)

/** What left its usual band for longest; else what stands here. */
function Sentence({ page }: { readonly page: BoardPage }) {
  const left = page.lanes
    .flatMap(lane => lane.left.map(each => ({ lane, ...each })))
    .sort((a, b) => weightOf(b) - weightOf(a))[0]
  if (page.lanes.length === 0)
    return (
      <p className="sentence">
        <b>The board is empty.</b> Put series on it, whatever they are of, and read them on one axis of time.
      </p>
    )
  if (left === undefined)
    return (
      <p className="sentence">
        <b>{countAtStart(page.lanes.length, 'series', 'series')} on one axis of time.</b> Its address is all of it: send
        it on, or name it.
      </p>
    )
  const step = (page.until - page.from) / Math.max(1, page.times.length)
  return (
    <p className="sentence">
      <b>
        {left.lane.of?.name ?? 'A series'} was {left.side} its usual band for{' '}
        {formatSeconds(((left.to - left.from + 1) * step) / 1000)}.
      </b>{' '}
      The band is what that hour of the week had in eight weeks before.
    </p>
  )
}

/** What one might begin with: what is due, and what is slow. */
async function About({ board }: { readonly board: Board }) {
  const { scope } = await reader()
  const [due] = await poolsByDate(scope)
  const { lines } = await slowest(scope, 3)
  const begin = (hours: number, ...lanes: Board['lanes']) => `?${boardQuery({ ...board, lanes, hours, chosen: 0 })}`
  const lane = (metric: 'latency' | 'requests' | 'written', objectId: string) => plainLane({ metric, objectId })
  const besideLast = (id: string) => ({ ...lane('latency', id), shiftDays: -7, isUsualShown: true })
  return (
    <Margin>
      <h2>About the board</h2>
      <p className="mt-0">
        Any series of any pool or volume, on one axis of time, with the changes and findings of all of them. A lane that
        is chosen shows here what it moves with, and can be laid over another or beside what it was before. A series is
        put on by a click or dragged to its place, and a lane by its handle to another.
      </p>
      {(lines.length > 0 || due !== undefined) && <h3>Begin with</h3>}
      {lines.map(({ id, name, poolId }) => (
        <Begin key={id} href={begin(168, besideLast(id), lane('requests', id), lane('latency', poolId))}>
          {name}: this week beside the last, and its pool
        </Begin>
      ))}
      {due !== undefined && (
        <Begin href={begin(672, lane('written', due.pool.id), lane('requests', due.pool.id))}>
          {due.pool.name}: four weeks of what is written
        </Begin>
      )}
      <BringIn />
    </Margin>
  )
}

const Begin = ({ href, children }: { readonly href: string; readonly children: ReactNode }) => (
  <div className="border-b border-rule-fine py-[5px]">
    <Link className="textlink" scroll={false} href={href}>
      {children}
    </Link>
  </div>
)
