/**
 * WebAssembly, written instruction by instruction: kernels of some hundred bytes, which no build step has to make.
 * Source: WebAssembly Core Specification 2.0, 5 (binary format), and its vector instructions.
 */

const unsigned = (value: number): number[] =>
  value < 0x80 ? [value] : [(value & 0x7f) | 0x80, ...unsigned(value >>> 7)]
function signed(value: number): number[] {
  const low = value & 0x7f
  const rest = value >> 7
  const isLast = (rest === 0 && (low & 0x40) === 0) || (rest === -1 && (low & 0x40) !== 0)
  return isLast ? [low] : [low | 0x80, ...signed(rest)]
}
const text = (word: string) => [word.length, ...[...word].map(each => each.charCodeAt(0))]
const section = (id: number, body: readonly number[]) => [id, ...unsigned(body.length), ...body]
const list = (items: readonly (readonly number[])[]) => [...unsigned(items.length), ...items.flat()]

/** Sorts of locals: a whole number of 32 bits, and a vector of 128. */
export const i32 = 0x7f
export const v128 = 0x7b
export const get = (local: number) => [0x20, ...unsigned(local)]
export const set = (local: number) => [0x21, ...unsigned(local)]
export const constant = (value: number) => [0x41, ...signed(value)]
const add = [0x6a]
/** Whether the first of two is less than the second, both without a sign. */
export const below = [0x49]
export const loadNumber = (offset: number) => [0x28, 2, ...unsigned(offset)]
/** A vector instruction by its number. */
export const vector = (code: number) => [0xfd, ...unsigned(code)]
export const load = (offset: number) => [...vector(0x00), 4, ...unsigned(offset)]
export const store = (offset: number) => [...vector(0x0b), 4, ...unsigned(offset)]
/** A vector of which every byte is the same. */
export const every = (byte: number) => [...vector(0x0c), ...Array.from({ length: 16 }, () => byte)]
/** A vector of four whole numbers that are the same. */
export const fourOf = (value: number) => {
  const bytes = [0, 8, 16, 24].map(shift => (value >>> shift) & 0xff)
  return [...vector(0x0c), ...bytes, ...bytes, ...bytes, ...bytes]
}
export const step = (local: number, by: number) => [...get(local), ...constant(by), ...add, ...set(local)]
/** Repeats while a condition, left by the body, is not 0. */
export const repeat = (body: readonly number[]) => [0x03, 0x40, ...body, 0x0d, 0x00, 0x0b]

export const range = (count: number) => Array.from({ length: count }, (_, index) => index)

/** A function's body. @param locals behind its parameters: how many of which sort */
export function functionBody(locals: readonly (readonly [number, number])[], code: readonly number[]): number[] {
  const declared = list(locals.map(([count, sort]) => [...unsigned(count), sort]))
  return [...unsigned(declared.length + code.length + 1), ...declared, ...code, 0x0b]
}

interface KernelFunction {
  readonly name: string
  /** All of them whole numbers of 32 bits; it answers nothing. */
  readonly parameters: number
  readonly body: readonly number[]
}

/** A module with a memory of so many pages of 64 KiB, which it shows as `memory`, and some functions. */
export function bytesOfModule(pages: number, functions: readonly KernelFunction[]): Uint8Array<ArrayBuffer> {
  const parameters = functions[0]?.parameters ?? 0
  const type = [0x60, parameters, ...range(parameters).map(() => i32), 0]
  return Uint8Array.from([
    ...[0x00, 0x61, 0x73, 0x6d, 1, 0, 0, 0],
    ...section(1, list([type])),
    ...section(3, list(functions.map(() => [0]))),
    ...section(5, list([[0, ...unsigned(pages)]])),
    ...section(7, list([[...text('memory'), 2, 0], ...functions.map(({ name }, at) => [...text(name), 0, at])])),
    ...section(10, list(functions.map(({ body }) => body))),
  ])
}
