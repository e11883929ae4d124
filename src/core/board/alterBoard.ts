import { mostLanes, type Board, type LaneAsked, type SeriesAsked } from './boardAddress'

const isSame = (a: SeriesAsked, b: SeriesAsked) => a.metric === b.metric && a.objectId === b.objectId

/** A lane of a series as it is put on a board: nothing over it, nothing beside it. */
export const plainLane = ({ metric, objectId }: SeriesAsked): LaneAsked => ({
  ...{ metric, objectId },
  ...{ over: null, shiftDays: 0, isUsualShown: false },
})

export const isFull = ({ lanes }: Board): boolean => lanes.length >= mostLanes

/** Where a series stands on a board; -1 where it does not. */
export const laneIndex = ({ lanes }: Board, series: SeriesAsked): number =>
  lanes.findIndex(each => isSame(each, series))

/** Lanes in another order, or other lanes; the one that is chosen stays so, wherever it stands now. */
const withLanes = (board: Board, lanes: readonly LaneAsked[]): Board => {
  const own = board.lanes[board.chosen ?? -1]
  const at = own === undefined ? -1 : lanes.findIndex(each => isSame(each, own))
  return { ...board, lanes, chosen: at === -1 ? null : at }
}

/**
 * Puts a series on a board. One that stands there is moved, and none comes to a full board.
 * @param at before which lane; at the end where it is not said
 */
export function putOn(board: Board, series: SeriesAsked, at = board.lanes.length): Board {
  const from = laneIndex(board, series)
  if (from !== -1) return moveLane(board, from, Math.min(at, board.lanes.length - 1))
  if (isFull(board)) return board
  return withLanes(board, board.lanes.toSpliced(at, 0, plainLane(series)))
}

/** Moves a lane to another place; beyond the ends it stays at the end. */
export function moveLane(board: Board, from: number, to: number): Board {
  const own = board.lanes[from]
  if (own === undefined) return board
  const place = Math.min(board.lanes.length - 1, Math.max(0, to))
  return withLanes(board, board.lanes.toSpliced(from, 1).toSpliced(place, 0, own))
}

/** Looks at a lane in another way. */
export const alterLane = (board: Board, index: number, more: Partial<LaneAsked>): Board => ({
  ...board,
  lanes: board.lanes.map((each, at) => (at === index ? { ...each, ...more } : each)),
})

/** Takes a lane off; where its series is laid over another it stays there. */
export const takeOff = (board: Board, index: number): Board => withLanes(board, board.lanes.toSpliced(index, 1))
