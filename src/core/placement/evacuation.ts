import { FlowNetwork } from './cheapestFlow'

export type EvacuationMode = 'full' | 'keep-available' | 'none'

export interface EvacuationDrive {
  readonly id: string
  readonly node: string
  readonly capacityBytes: bigint
  /** Up to where it may be filled; a drive that is over it has to come down. */
  readonly limitBytes: bigint
}

export interface EvacuationRequest {
  readonly mode: EvacuationMode
  /** Pieces of a stripe that suffice to read it (count). */
  readonly piecesToRead: number
  readonly pieceBytes: bigint
  readonly drives: readonly EvacuationDrive[]
  /** Drives that leave, as indexes. */
  readonly leavingDrives: readonly number[]
  readonly leavingNodes: readonly string[]
  /** The drives of each stripe's pieces, as indexes; all on different nodes. */
  readonly stripes: readonly (readonly number[])[]
}

export interface PieceMove {
  readonly stripe: number
  /** The drive that the piece leaves, or null where it is made anew from the others. */
  readonly from: number | null
  readonly to: number
}

export type EvacuationAnswer =
  | {
      readonly feasible: false
      readonly reason: 'too-few-domains' | 'capacity' | 'capacity-across-domains' | 'not-placeable'
    }
  | {
      readonly feasible: true
      readonly movedBytes: bigint
      /** Largest used ÷ capacity over the drives that stay. */
      readonly worstFill: number
      readonly moves: readonly PieceMove[]
      /** Stripes that have fewer pieces than they should, for as long as the parts are away (count). */
      readonly thinnedStripes: number
      /** Stripes that cannot be read meanwhile (count). */
      readonly unreadableStripes: number
    }

interface Problem extends EvacuationRequest {
  readonly stays: readonly boolean[]
  readonly nodes: readonly string[]
  readonly wanted: readonly number[]
  /** Whole pieces that fit on each drive under its limit. */
  readonly room: readonly number[]
}

/**
 * What has to move so that drives or nodes can leave: the fewest bytes, and among those the least worst fill.
 * Exact: pieces are placed by a least-cost flow in which a piece that stays where it is costs nothing.
 */
export function evacuation(request: EvacuationRequest): EvacuationAnswer {
  const leavingNodes = new Set(request.leavingNodes)
  const leavingDrives = new Set(request.leavingDrives)
  const stays = request.drives.map((drive, index) => !leavingDrives.has(index) && !leavingNodes.has(drive.node))
  const stayingPieces = request.stripes.map(stripe => stripe.filter(drive => stays[drive] === true))
  if (request.mode === 'none') return nothingMoves(request, stays, stayingPieces)
  const problem: Problem = {
    ...request,
    stays,
    nodes: [...new Set(request.drives.map(drive => drive.node))],
    wanted: request.stripes.map((stripe, index) =>
      request.mode === 'full'
        ? stripe.length
        : Math.min(stripe.length, Math.max(request.piecesToRead, stayingPieces[index]?.length ?? 0)),
    ),
    room: request.drives.map((drive, index) =>
      stays[index] === true ? Number(drive.limitBytes / request.pieceBytes) : 0,
    ),
  }
  const reason = bindingRule(problem)
  if (reason !== undefined) return { feasible: false, reason }
  const least = placed(problem, problem.room)
  if (least === undefined) return { feasible: false, reason: 'not-placeable' }
  return answerOf(problem, leastFilled(problem, least))
}

/** The first rule that makes a full evacuation impossible. */
function bindingRule({ mode, drives, stripes, stays, nodes, wanted, room }: Problem) {
  if (mode !== 'full') return undefined
  const width = Math.max(0, ...stripes.map(stripe => stripe.length))
  const roomByNode = nodes.map(node =>
    drives.reduce((sum, drive, index) => (drive.node === node ? sum + (room[index] ?? 0) : sum), 0),
  )
  const staying = nodes.filter(node => drives.some((drive, index) => drive.node === node && stays[index] === true))
  if (staying.length < width) return 'too-few-domains' as const
  const needed = wanted.reduce((sum, count) => sum + count, 0)
  if (roomByNode.reduce((sum, count) => sum + count, 0) < needed) return 'capacity' as const
  const reachable = roomByNode.reduce((sum, count) => sum + Math.min(count, stripes.length), 0)
  return reachable < needed ? ('capacity-across-domains' as const) : undefined
}

interface Placed {
  /** Drives of each stripe's pieces. */
  readonly stripes: readonly (readonly number[])[]
  readonly moved: number
}

function placed({ drives, stripes, nodes, wanted }: Problem, room: readonly number[]): Placed | undefined {
  const source = 0
  const sink = 1
  const firstStripe = 2
  const firstDrive = firstStripe + stripes.length
  const firstPair = firstDrive + drives.length
  const network = new FlowNetwork(firstPair + stripes.length * nodes.length)
  const driveArcs: { readonly arc: number; readonly stripe: number; readonly drive: number }[] = []
  const nodeIndex = new Map(nodes.map((node, index) => [node, index]))
  drives.forEach((_, drive) => network.addArc(firstDrive + drive, sink, room[drive] ?? 0, 0))
  stripes.forEach((stripe, index) => {
    network.addArc(source, firstStripe + index, wanted[index] ?? 0, 0)
    nodes.forEach((_, node) => network.addArc(firstStripe + index, firstPair + index * nodes.length + node, 1, 0))
    drives.forEach((drive, at) => {
      if ((room[at] ?? 0) === 0) return
      const pair = firstPair + index * nodes.length + (nodeIndex.get(drive.node) ?? 0)
      const arc = network.addArc(pair, firstDrive + at, 1, stripe.includes(at) ? 0 : 1)
      driveArcs.push({ arc, stripe: index, drive: at })
    })
  })
  const needed = wanted.reduce((sum, count) => sum + count, 0)
  const { sent, cost } = network.send(source, sink, needed)
  if (sent < needed) return undefined
  const result: number[][] = stripes.map(() => [])
  for (const { arc, stripe, drive } of driveArcs) if (network.flowOn(arc) > 0) result[stripe]?.push(drive)
  return { stripes: result, moved: cost }
}

/** Among the placements that move as little, one whose fullest drive is least full: the level is found by halving. */
function leastFilled(problem: Problem, least: Placed): Placed {
  const { drives, stays, pieceBytes } = problem
  const most = Math.max(0, ...problem.room)
  const levels = new Set<number>()
  drives.forEach((drive, index) => {
    if (stays[index] !== true) return
    for (let count = 0; count <= Math.min(most, problem.room[index] ?? 0); count += 1)
      levels.add((count * Number(pieceBytes)) / Number(drive.capacityBytes))
  })
  const sorted = [...levels].sort((a, b) => a - b)
  const under = (level: number) =>
    problem.room.map((count, index) => {
      const capacity = Number(drives[index]?.capacityBytes ?? 0n)
      // A hair is added, since the level itself was computed by the same division.
      return Math.min(count, Math.floor((level * capacity * (1 + 1e-12)) / Number(pieceBytes)))
    })
  let best = least
  let low = 0
  let high = sorted.findIndex(level => level >= worstFill(problem, least.stripes))
  if (high < 0) high = sorted.length - 1
  while (low < high) {
    const middle = Math.floor((low + high) / 2)
    const tried = placed(problem, under(sorted[middle] ?? 0))
    if (tried !== undefined && tried.moved === least.moved) {
      best = tried
      high = middle
    } else low = middle + 1
  }
  return best
}

function worstFill(
  { drives, stays, pieceBytes }: Pick<Problem, 'drives' | 'stays' | 'pieceBytes'>,
  stripes: readonly (readonly number[])[],
): number {
  const counts = new Map<number, number>()
  for (const stripe of stripes) for (const drive of stripe) counts.set(drive, (counts.get(drive) ?? 0) + 1)
  return drives.reduce((worst, drive, index) => {
    const used = (counts.get(index) ?? 0) * Number(pieceBytes)
    return stays[index] === true ? Math.max(worst, used / Number(drive.capacityBytes)) : worst
  }, 0)
}

function answerOf(problem: Problem, found: Placed): EvacuationAnswer {
  const moves: PieceMove[] = []
  found.stripes.forEach((after, stripe) => {
    const before = problem.stripes[stripe] ?? []
    const leaving = before.filter(drive => !after.includes(drive))
    for (const to of after) if (!before.includes(to)) moves.push({ stripe, from: leaving.shift() ?? null, to })
  })
  return {
    feasible: true,
    movedBytes: BigInt(found.moved) * problem.pieceBytes,
    worstFill: worstFill(problem, found.stripes),
    moves,
    thinnedStripes: found.stripes.filter((after, index) => after.length < (problem.stripes[index]?.length ?? 0)).length,
    unreadableStripes: found.stripes.filter(after => after.length < problem.piecesToRead).length,
  }
}

function nothingMoves(
  request: EvacuationRequest,
  stays: readonly boolean[],
  stayingPieces: readonly (readonly number[])[],
): EvacuationAnswer {
  return {
    feasible: true,
    movedBytes: 0n,
    worstFill: worstFill({ ...request, stays }, stayingPieces),
    moves: [],
    thinnedStripes: stayingPieces.filter((pieces, index) => pieces.length < (request.stripes[index]?.length ?? 0))
      .length,
    unreadableStripes: stayingPieces.filter(pieces => pieces.length < request.piecesToRead).length,
  }
}
