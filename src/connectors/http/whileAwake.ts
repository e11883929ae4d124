const tickMilliseconds = 250

/**
 * A signal that aborts after so much waiting (milliseconds) as this process was awake for. Where the machine stood still, or this process
 * got no turn, answers may have come that nobody has read yet: a stall counts as one tick only, so that it is not told as the silence of
 * the other side.
 *
 * @param stop aborts it too, with its reason. It outlives many waits and keeps nothing of those that are over, as what
 *   `AbortSignal.any` makes of it would.
 * @returns `isLate` says whether it was the time that ended it; `end` lets go of it when the wait is over
 */
export function whileAwake(milliseconds: number, stop?: AbortSignal): Wait {
  const ending = new AbortController()
  let left = Math.ceil(milliseconds / tickMilliseconds)
  const end = () => {
    clearInterval(ticks)
    stop?.removeEventListener('abort', stopped)
  }
  const ticks = setInterval(() => {
    left -= 1
    if (left > 0) return
    end()
    ending.abort(new DOMException('It took too long.', 'TimeoutError'))
  }, tickMilliseconds)
  ticks.unref()
  const stopped = () => {
    end()
    ending.abort(stop?.reason)
  }
  if (stop?.aborted === true) stopped()
  else stop?.addEventListener('abort', stopped, { once: true })
  return { signal: ending.signal, isLate: () => left <= 0, end }
}

interface Wait {
  readonly signal: AbortSignal
  readonly isLate: () => boolean
  readonly end: () => void
}
