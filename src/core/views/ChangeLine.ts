import type { ChangeState } from '../plan'

/** A change in a line. */
export interface ChangeLine {
  readonly id: string
  readonly number: number
  readonly title: string
  readonly state: ChangeState
  readonly at: string
}
