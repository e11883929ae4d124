/** A stream that ends sooner says nothing of its system: it may be one that keeps none open. */
const steadyMilliseconds = 10_000

/**
 * Listens to what a system tells by itself. One that loses its power does not end its streams: they would stand open for ever with nobody
 * at the other end, and what it tells after it has come back would not be heard. So a stream is left where the system does not answer, and
 * opened anew when it does.
 */
export class Listening {
  #own: AbortController | undefined

  /**
   * @param listen listens until it is stopped, or until nothing more is told
   * @param ended is told of the end of a stream that had stood for a while: something has become of the system
   */
  constructor(
    private readonly listen: (stop: AbortSignal) => Promise<void>,
    private readonly ended: () => void,
    private readonly stop: AbortSignal,
    private readonly now: () => number = Date.now,
  ) {}

  /** Begins to listen, unless it does already. */
  begin(): void {
    if (this.#own !== undefined || this.stop.aborted) return
    const own = new AbortController()
    this.#own = own
    const begunAt = this.now()
    void this.listen(AbortSignal.any([this.stop, own.signal]))
      .catch(() => undefined)
      .finally(() => {
        if (this.#own !== own) return
        this.#own = undefined
        if (!this.stop.aborted && this.now() - begunAt >= steadyMilliseconds) this.ended()
      })
  }

  /** Leaves the stream. */
  leave(): void {
    this.#own?.abort()
    this.#own = undefined
  }
}
