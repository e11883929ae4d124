import type { Store } from './Store'

interface Anchor {
  readonly wallMilliseconds: number
  readonly fleetMilliseconds: number
  readonly rate: number
}

/** The fleet's own time: it runs `rate` times as fast as the wall, can be stopped (rate 0) and stepped, and is never set back. */
export class FleetClock {
  readonly #store: Store

  constructor(store: Store, firstRate: number) {
    this.#store = store
    if (this.#anchor === undefined) this.#anchorAt(Date.now(), firstRate)
  }

  now(): number {
    const anchor = this.#anchor
    if (anchor === undefined) return Date.now()
    return anchor.fleetMilliseconds + Math.max(0, Date.now() - anchor.wallMilliseconds) * anchor.rate
  }

  get rate(): number {
    return this.#anchor?.rate ?? 1
  }

  setRate(rate: number): void {
    this.#anchorAt(this.now(), rate)
  }

  step(seconds: number): void {
    this.#anchorAt(this.now() + seconds * 1000, this.rate)
  }

  get #anchor(): Anchor | undefined {
    return this.#store.one<Anchor>('clock', 'anchor')
  }

  #anchorAt(fleetMilliseconds: number, rate: number): void {
    this.#store.put('clock', 'anchor', { wallMilliseconds: Date.now(), fleetMilliseconds, rate } satisfies Anchor)
  }
}
