import { randomUUID } from 'node:crypto'

/** Faults that the fleet's own control interface can inject; never through Wendrel. */
export const faultKinds = [
  'not-answering',
  'slow',
  'unavailable',
  'malformed',
  'wrong-types',
  'expired-token',
  'task-fails',
  'limit-ignored',
  'secret-ignored',
  'controller-down',
  'drive-fails',
  'drive-pulled',
  'drive-returned',
  'node-down',
  'node-up',
  'port-mtu',
  'clock-skew',
  'name-record',
  'address-record',
  'way-barred',
  'way-open',
] as const
export type FaultKind = (typeof faultKinds)[number]

export interface Fault {
  readonly id: string
  readonly target: string
  readonly kind: FaultKind
  /** Slow: milliseconds added to each answer. */
  readonly milliseconds: number
  /** Unavailable: what Retry-After says. */
  readonly retryAfterSeconds: number
  /** Task fails: at which part of its work (0 to 1). */
  readonly atRatio: number
  /** Drive fails: its bay, as `<enclosure>/<bay>`. */
  readonly drive: string
  /** Controller down: which. */
  readonly controller?: string
  /** How many times it strikes; 0 is until it is cleared. */
  readonly times: number
}

/** Faults in force. They live in memory only: a fleet that starts anew is healthy, but for what a fault has broken. */
export class Faults {
  readonly #faults = new Map<string, Fault>()

  all(): Fault[] {
    return [...this.#faults.values()]
  }

  inject(fault: Omit<Fault, 'id'>): Fault {
    const whole = { ...fault, id: randomUUID() }
    this.#faults.set(whole.id, whole)
    return whole
  }

  clear(id?: string): void {
    if (id === undefined) this.#faults.clear()
    else this.#faults.delete(id)
  }

  /** The fault of a kind that strikes a target now; one that strikes a set number of times is used up by it. */
  strikes(target: string, kind: FaultKind): Fault | undefined {
    const fault = this.all().find(each => each.kind === kind && each.target === target)
    if (fault === undefined) return undefined
    if (fault.times === 1) this.#faults.delete(fault.id)
    else if (fault.times > 1) this.#faults.set(fault.id, { ...fault, times: fault.times - 1 })
    return fault
  }
}
