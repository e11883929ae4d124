import { pieceChunks } from '../layout'
import { wantedPieces } from './wantedPieces'
import { placer, type PlacementDomain } from './placer'

/**
 * Where the pieces of all stripe sets stand, so that no drive has to hold more than its size when all that is stated as usable is written:
 * each drive has about its share of the pieces, never more than its space holds. Begins with the highest draws, or with where the
 * pieces stand now, and moves as few of them as it can; a drive that joins or leaves moves little more than its own share.
 *
 * @param stripeSets sets that are placed together (count)
 * @param before drive of each piece (index into the drives of all domains in order), `width` a set; −1 where it has none any more
 * @returns the same for now; a piece that stays keeps its place in its set
 * @throws {TooFewPlaces} where fewer domains than `width` hold a chunk
 */
export function balancedPlacement(
  domains: readonly PlacementDomain[],
  width: number,
  stripeSets: number,
  before?: Int32Array,
): Int32Array {
  const { placeAll, domainOf } = placer(domains, width)
  const places = before === undefined ? placeAll(stripeSets) : Int32Array.from(before)
  const loads = new Int32Array(domainOf.length)
  for (const drive of places) if (drive >= 0) loads[drive] = (loads[drive] ?? 0) + 1
  const piece = pieceChunks(
    domains.map(domain => domain.drives.map(({ chunks }) => ({ chunks, count: 1 }))),
    width,
    stripeSets,
  )
  const wanted = wantedPieces(domains, width, stripeSets, piece, loads)
  new Balancing(places, width, domainOf, loads, wanted).balance()
  return places
}

/** Moves pieces from drives that have more than they should to those that have less. */
class Balancing {
  /** Pieces on each drive, by their place in the list of all. */
  readonly #on: number[][]
  /** Drives that want more. */
  #open: number[]

  constructor(
    private readonly places: Int32Array,
    private readonly width: number,
    private readonly domainOf: Int32Array,
    private readonly loads: Int32Array,
    private readonly wanted: Int32Array,
  ) {
    this.#on = Array.from(loads, () => [])
    places.forEach((drive, at) => {
      if (drive >= 0) this.#on[drive]?.push(at)
    })
    this.#open = this.#wanting()
  }

  balance(): void {
    this.places.forEach((drive, at) => {
      if (drive < 0) this.#give(at)
    })
    // What can go straight to where it is wanted goes first: a way round another piece moves two.
    for (const isDirect of [true, false]) for (const drive of this.loads.keys()) this.#shed(drive, isDirect)
  }

  #shed(drive: number, isDirect: boolean): void {
    // The last pieces first: of a drive whose share has shrunk, those that came last go on.
    for (let index = (this.#on[drive]?.length ?? 0) - 1; index >= 0 && this.#excess(drive) > 0; index -= 1) {
      const at = this.#on[drive]?.[index]
      if (at === undefined || this.places[at] !== drive) continue
      if (!isDirect) this.#give(at)
      else {
        const target = this.#emptiest(at)
        if (target !== undefined) this.#move(at, target)
      }
    }
  }

  #excess = (drive: number) => (this.loads[drive] ?? 0) - (this.wanted[drive] ?? 0)
  #wanting = () => [...this.loads.keys()].filter(drive => this.#excess(drive) < 0)

  /** Gives a piece another drive: one that wants more, else one whose own piece can go on to a drive that does. */
  #give(at: number): void {
    const target = this.#emptiest(at) ?? this.#throughAnother(at)
    if (target !== undefined) this.#move(at, target)
  }

  /** Of the drives that want more and stand in a domain where the set has nothing, the one that lacks the largest part of its share. */
  #emptiest(at: number): number | undefined {
    let best: number | undefined
    let lack = 0
    for (const drive of this.#open) {
      const own = -this.#excess(drive) / (this.wanted[drive] ?? 1)
      if (own > lack && !this.#isInSet(at, this.domainOf[drive] ?? -1)) {
        best = drive
        lack = own
      }
    }
    return best
  }

  /** A drive from which some other piece can go to one that wants more, so that this one may take its place. */
  #throughAnother(at: number): number | undefined {
    for (const drive of this.loads.keys()) {
      if ((this.wanted[drive] ?? 0) === 0 || this.#isInSet(at, this.domainOf[drive] ?? -1)) continue
      for (const other of this.#on[drive] ?? []) {
        if (this.places[other] !== drive) continue
        const target = this.#emptiest(other)
        if (target === undefined) continue
        this.#move(other, target)
        return drive
      }
    }
    return undefined
  }

  /** Whether another piece of the set stands in a domain; its own does not count, since it leaves. */
  #isInSet(at: number, domain: number): boolean {
    const from = at - (at % this.width)
    for (let piece = from; piece < from + this.width; piece += 1) {
      const drive = this.places[piece] ?? -1
      if (piece !== at && drive >= 0 && this.domainOf[drive] === domain) return true
    }
    return false
  }

  #move(at: number, to: number): void {
    const from = this.places[at] ?? -1
    if (from >= 0) this.loads[from] = (this.loads[from] ?? 0) - 1
    this.places[at] = to
    this.loads[to] = (this.loads[to] ?? 0) + 1
    this.#on[to]?.push(at)
    if (this.#excess(to) === 0) this.#open = this.#open.filter(drive => drive !== to)
  }
}
