import {
  bytesOfModule,
  constant,
  every,
  fourOf,
  functionBody,
  get,
  i32,
  load,
  loadNumber,
  repeat,
  set,
  step,
  store,
  v128,
  vector,
} from '../wasm'

/** Draws of four drives at once. */
const lanes = 4
const vectorBytes = 16
/** Of four drives: their seeds, their places in their class, and which bits of a draw are kept. */
const partBytes = 3 * vectorBytes
const pageBytes = 65_536

/** Finds the highest draw of every class for one stripe after another. */
export interface DrawKernel {
  /** The highest draw of each class, in four numbers of which the largest counts. */
  readonly highest: Int32Array
  readonly draw: (stripeSeed: number) => void
}

interface Classes {
  /** Where the drives of each class begin; one entry more ends the last. */
  readonly start: Int32Array
  readonly seed: Int32Array
  /** The bits of a draw that carry its drive's place. */
  readonly masks: Int32Array
}

const splat = vector(0x11)
const and = vector(0x4e)
const or = vector(0x50)
const xor = vector(0x51)
const shiftRight = vector(0xad)
const times = vector(0xb5)
const larger = vector(0xb8)

/** Parameters, then locals, by number. */
const local = { stripe: 0, classes: 1, at: 2, counts: 3, left: 4, out: 5, seed: 6, most: 7, key: 8 }

/** Makes the kernel for some classes; undefined where WebAssembly or its vectors are not to be had, or a policy forbids them. */
export function drawKernel({ start, seed, masks }: Classes): DrawKernel | undefined {
  const counts = Array.from(masks, (_, own) => Math.ceil(((start[own + 1] ?? 0) - (start[own] ?? 0)) / lanes))
  const outAt = Math.ceil((masks.length * 4) / vectorBytes) * vectorBytes
  const partsAt = outAt + masks.length * vectorBytes
  const bytes = partsAt + counts.reduce((sum, count) => sum + count, 0) * partBytes
  try {
    const code = moduleBytes(Math.ceil(bytes / pageBytes), outAt, partsAt)
    const { exports } = new WebAssembly.Instance(new WebAssembly.Module(code))
    const memory = new Int32Array((exports['memory'] as WebAssembly.Memory).buffer)
    memory.set(counts)
    let at = partsAt / 4
    counts.forEach((count, own) => {
      const from = start[own] ?? 0
      const drives = (start[own + 1] ?? 0) - from
      for (let place = 0; place < count * lanes; place += 1) {
        const to = at + Math.floor(place / lanes) * (partBytes / 4) + (place % lanes)
        // What fills up the last four draws nothing, and loses.
        if (place >= drives) continue
        memory[to] = seed[from + place] ?? 0
        memory[to + lanes] = place
        memory[to + 2 * lanes] = 0x7fffffff & ~(masks[own] ?? 0)
      }
      at += count * (partBytes / 4)
    })
    const draw = exports['draw'] as (stripeSeed: number, classes: number) => void
    return {
      highest: memory.subarray(outAt / 4, partsAt / 4),
      draw: stripeSeed => draw(stripeSeed, masks.length),
    }
  } catch {
    return undefined
  }
}

/** As `drawnNumber` does: multiply, fold, multiply. */
const drawn = [
  ...get(local.seed),
  ...get(local.at),
  ...load(0),
  ...xor,
  ...fourOf(0x85ebca6b),
  ...times,
  ...set(local.key),
  ...get(local.key),
  ...get(local.key),
  ...constant(15),
  ...shiftRight,
  ...xor,
  ...fourOf(0xc2b2ae35),
  ...times,
  ...get(local.at),
  ...load(2 * vectorBytes),
  ...and,
  ...get(local.at),
  ...load(vectorBytes),
  ...or,
]

function moduleBytes(pages: number, outAt: number, partsAt: number): Uint8Array<ArrayBuffer> {
  const code = [
    ...[...get(local.stripe), ...splat, ...set(local.seed)],
    ...[...constant(partsAt), ...set(local.at), ...constant(outAt), ...set(local.out)],
    ...repeat([
      ...[...every(0), ...set(local.most)],
      ...[...get(local.counts), ...loadNumber(0), ...set(local.left)],
      ...repeat([
        ...[...get(local.most), ...drawn, ...larger, ...set(local.most)],
        ...step(local.at, partBytes),
        ...step(local.left, -1),
        ...get(local.left),
      ]),
      ...[...get(local.out), ...get(local.most), ...store(0)],
      ...step(local.out, vectorBytes),
      ...step(local.counts, 4),
      ...step(local.classes, -1),
      ...get(local.classes),
    ]),
  ]
  const body = functionBody(
    [
      [4, i32],
      [3, v128],
    ],
    code,
  )
  return bytesOfModule(pages, [{ name: 'draw', parameters: 2, body }])
}
