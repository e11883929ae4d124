import { setFlagsFromString } from 'node:v8'
import { runInNewContext } from 'node:vm'

let collect: (() => void) | undefined

/**
 * Gives back what a whole reading of a large system has left: V8 would keep it until it needs the room, and the next reading would come on
 * top of it. Takes a tenth of a second. Source: Node.js, `v8`; V8 gives its collector to programs only by this flag.
 */
export function giveBack(): void {
  if (collect === undefined) {
    setFlagsFromString('--expose-gc')
    collect = runInNewContext('gc') as () => void
  }
  collect()
}
