import type { EventEmitter } from 'node:events'
import { setFlagsFromString } from 'node:v8'
import { runInNewContext } from 'node:vm'

const restMilliseconds = 20_000
/** What the first time has let go (what holds memory outside the collector's own) is given back by a second. */
const againMilliseconds = 2000

/** Collects all that nobody holds any more. V8 gives it to programs only where it was asked for by this flag. Source: Node.js, `v8`. */
function collect(): void {
  setFlagsFromString('--expose-gc')
  const gc = runInNewContext('gc') as () => void
  gc()
}

/**
 * After a time in which nobody has asked for anything, what was made for those who did is given back: V8 itself waits until it needs the
 * room, and keeps for hours what a busy minute has left. While it tidies up, a tenth of a second, nobody waits.
 * @param server that tells of each request
 * @returns how to end it
 */
export function tidyAtRest(server: EventEmitter, tidy: () => void = collect): () => void {
  let timer: NodeJS.Timeout | undefined
  let again: NodeJS.Timeout | undefined
  const asked = () => {
    if (timer === undefined) {
      timer = setTimeout(() => {
        timer = undefined
        tidy()
        clearTimeout(again)
        again = setTimeout(tidy, againMilliseconds)
        again.unref()
      }, restMilliseconds)
      timer.unref()
    } else timer.refresh()
  }
  server.on('request', asked)
  return () => {
    server.off('request', asked)
    clearTimeout(timer)
    clearTimeout(again)
  }
}
