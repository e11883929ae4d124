const tickMilliseconds = 250

/**
 * A signal that aborts after so much waiting (milliseconds) as this process was awake for. Where the machine stood still, or this process
 * got no turn, answers may have come that nobody has read yet: a stall counts as one tick only, so that it is not told as the silence of
 * the other side.
 *
 * @returns `end` lets go of it when the wait is over
 */
export function whileAwake(milliseconds: number): { readonly signal: AbortSignal; readonly end: () => void } {
  const late = new AbortController()
  let left = Math.ceil(milliseconds / tickMilliseconds)
  const ticks = setInterval(() => {
    left -= 1
    if (left > 0) return
    clearInterval(ticks)
    late.abort(new DOMException('It took too long.', 'TimeoutError'))
  }, tickMilliseconds)
  ticks.unref()
  return { signal: late.signal, end: () => clearInterval(ticks) }
}
