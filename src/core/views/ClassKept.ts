import type { PromiseKept, PromiseName } from '../classes'

/** How many volumes of a class stand in each state of one of its promises. */
export interface PromiseCount {
  readonly promise: PromiseName
  readonly promised: string
  readonly counts: Readonly<Record<PromiseKept['state'], number>>
}

/** How the promises of a class are kept for the volumes under it. */
export interface ClassKept {
  readonly id: string
  readonly name: string
  readonly volumes: number
  readonly promises: readonly PromiseCount[]
}
