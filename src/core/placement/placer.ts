import { drawKernel } from './drawKernel'
import { inclusionMultipliers } from './inclusionMultipliers'
import { TooFewPlaces } from './errors'

export interface PlacementDrive {
  readonly id: string
  /** Whole chunks that the drive holds (count, ≥ 0): its share of pieces is in proportion. */
  readonly chunks: number
}

/** A failure domain with its drives: no two pieces of a stripe stand in one. */
export interface PlacementDomain {
  readonly id: string
  readonly drives: readonly PlacementDrive[]
}

export interface Placer {
  /** The drives of all domains in order, by which answers count. */
  readonly driveIds: readonly string[]
  /** The domain of each drive (index). */
  readonly domainOf: Int32Array
  /** Where the pieces of one stripe stand: `width` drive indexes in different domains, best score first. */
  readonly place: (stripe: number) => number[]
  /** The same for stripes 0 … count − 1, `width` entries each. */
  readonly placeAll: (count: number) => Int32Array
}

/** Drives of equal weight in one domain: among equals the highest draw wins, so one logarithm serves them all. */
interface WeightClasses {
  /** The rate of each class, its domain, and where its drives begin; one entry more ends the last. */
  readonly rate: Float64Array
  readonly domain: Int32Array
  readonly start: Int32Array
  readonly drive: Int32Array
  readonly seed: Int32Array
}

/**
 * Places stripes by weighted rendezvous hashing: every drive draws a number for every stripe, a domain stands for the best of its
 * drives, and the best `width` domains take a piece each. A domain that strands space counts with what it can use.
 * Deterministic; a drive that joins or leaves moves only the pieces that it gains or loses.
 * @param width pieces in a stripe (count, ≥ 1)
 * @throws {TooFewPlaces} where fewer domains than `width` hold a chunk
 * @see Thaler & Ravishankar 1998, highest random weight; Efraimidis & Spirakis 2006 for the weights
 */
export function placer(domains: readonly PlacementDomain[], width: number): Placer {
  const driveIds = domains.flatMap(domain => domain.drives.map(drive => drive.id))
  const domainOf = Int32Array.from(domains.flatMap((domain, index) => domain.drives.map(() => index)))
  const classes = weightClasses(domains, inclusionMultipliers(heldBy(domains, width), width))
  const { rate, start, seed } = classes
  const masks = masksOf(classes)
  const most = new Int32Array(rate.length)
  const rank = ranker(classes, masks, most, width)
  const drawEach = (stripe: number) => {
    const stripeSeed = seedOfStripe(stripe)
    for (let own = 0; own < rate.length; own += 1)
      most[own] = highest(stripeSeed, seed, start[own] as number, start[own + 1] as number, masks[own] as number)
  }
  return {
    driveIds,
    domainOf,
    place(stripe) {
      const into = new Int32Array(width)
      drawEach(stripe)
      rank(into, 0)
      return [...into]
    },
    placeAll(count) {
      const into = new Int32Array(count * width)
      const kernel = count < manyStripes ? undefined : drawKernel({ start, seed, masks })
      for (let stripe = 0; stripe < count; stripe += 1) {
        if (kernel === undefined) drawEach(stripe)
        else {
          kernel.draw(seedOfStripe(stripe))
          largestOfFour(kernel.highest, most)
        }
        rank(into, stripe * width)
      }
      return into
    },
  }
}

/** Chunks of each domain. @throws {TooFewPlaces} */
function heldBy(domains: readonly PlacementDomain[], width: number): number[] {
  const held = domains.map(domain => domain.drives.reduce((sum, drive) => sum + drive.chunks, 0))
  const holding = held.filter(chunks => chunks > 0).length
  if (holding < width) throw new TooFewPlaces(holding, width)
  return held
}

/** The lowest bits of a draw carry the drive's place, so that the highest draw tells whose it is without a branch. */
const masksOf = ({ rate, start }: WeightClasses) =>
  Int32Array.from(
    rate,
    (_, own) => 2 ** Math.ceil(Math.log2(Math.max(2, (start[own + 1] ?? 0) - (start[own] ?? 0)))) - 1,
  )

/** Ranks what has been drawn: the highest draw of each class, with its place in the lowest bits, stands in `most`. */
function ranker({ rate, domain, start, drive }: WeightClasses, masks: Int32Array, most: Int32Array, width: number) {
  const bestScore = new Float64Array(width)
  const bestDrive = new Int32Array(width)
  return (into: Int32Array, at: number) => {
    bestScore.fill(Infinity)
    let score = Infinity
    let chosen = -1
    for (let own = 0; own < rate.length; own += 1) {
      const from = start[own] as number
      const mask = masks[own] as number
      const draw = most[own] as number
      const winner = from + (draw & mask)
      const drawn = ((draw & ~mask) + (mask + 1) / 2) / 2147483648
      // −ln u is never below 1 − u: where that is too much already, the logarithm is spared.
      if ((1 - drawn) / (rate[own] as number) < Math.min(score, bestScore[width - 1] as number)) {
        const ownScore = -Math.log(drawn) / (rate[own] as number)
        if (ownScore < score) {
          score = ownScore
          chosen = drive[winner] as number
        }
      }
      if (domain[own] === domain[own + 1]) continue
      if (score < (bestScore[width - 1] as number)) insert(bestScore, bestDrive, score, chosen)
      score = Infinity
    }
    into.set(bestDrive, at)
  }
}

/** For fewer the kernel is not worth making. */
const manyStripes = 256

const seedOfStripe = (stripe: number) => Math.imul(stripe + 1, 0x9e3779b1) ^ 0x7f4a7c15

function largestOfFour(from: Int32Array, into: Int32Array): void {
  for (let own = 0, at = 0; own < into.length; own += 1, at += 4) {
    const [a, b, c, d] = [from[at] as number, from[at + 1] as number, from[at + 2] as number, from[at + 3] as number]
    const first = a > b ? a : b
    const second = c > d ? c : d
    into[own] = first > second ? first : second
  }
}

function insert(scores: Float64Array, drives: Int32Array, score: number, drive: number): void {
  let rank = scores.length - 1
  while (rank > 0 && score < (scores[rank - 1] as number)) {
    scores[rank] = scores[rank - 1] as number
    drives[rank] = drives[rank - 1] as number
    rank -= 1
  }
  scores[rank] = score
  drives[rank] = drive
}

function weightClasses(domains: readonly PlacementDomain[], multipliers: readonly number[]): WeightClasses {
  let next = 0
  const classes = domains.flatMap((each, index) => {
    const byChunks = new Map<number, { index: number; seed: number }[]>()
    for (const { id, chunks } of each.drives) {
      if (chunks > 0) byChunks.set(chunks, [...(byChunks.get(chunks) ?? []), { index: next, seed: seedOf(id) }])
      next += 1
    }
    return [...byChunks].map(([chunks, drives]) => ({
      domain: index,
      rate: chunks * (multipliers[index] ?? 1),
      drives,
    }))
  })
  const drives = classes.flatMap(each => each.drives)
  const starts = [0]
  for (const each of classes) starts.push((starts.at(-1) ?? 0) + each.drives.length)
  return {
    rate: Float64Array.from(classes, each => each.rate),
    domain: Int32Array.from([...classes.map(each => each.domain), -1]),
    start: Int32Array.from(starts),
    drive: Int32Array.from(drives, each => each.index),
    seed: Int32Array.from(drives, each => each.seed),
  }
}

/**
 * The highest draw, with its place in the lowest bits: 31 bits, never negative, so that the higher of two is found without a branch
 * that the processor would have to guess. Where many stripes are placed a kernel does the same for four drives at once.
 */
function highest(stripeSeed: number, seeds: Int32Array, from: number, to: number, mask: number): number {
  let most = 0
  const keep = 0x7fffffff & ~mask
  for (let index = from; index < to; index += 1) {
    const drawn = (drawnNumber(stripeSeed ^ (seeds[index] as number)) & keep) | (index - from)
    const ahead = (most - drawn) | 0
    most = (most - (ahead & (ahead >> 31))) | 0
  }
  return most
}

/** Multiply, fold, multiply: every bit of a key, whose parts are well mixed already, reaches the upper bits; those decide. */
function drawnNumber(key: number): number {
  const once = Math.imul(key, 0x85ebca6b)
  return Math.imul(once ^ (once >>> 15), 0xc2b2ae35)
}

/** FNV-1a over the identifier, spread over all bits. */
function seedOf(id: string): number {
  let hash = 0x811c9dc5
  for (let index = 0; index < id.length; index += 1) hash = Math.imul(hash ^ id.charCodeAt(index), 0x01000193)
  const spread = Math.imul(hash ^ (hash >>> 15), 0x2c1b3c6d)
  return spread ^ (spread >>> 12)
}
