import { WendrelError } from '@/core/errors'

/** A host's read or write that a cluster refuses. */
export abstract class InputOutputRefused extends WendrelError {
  readonly status = 503
}

/** More is lost than the layout survives: the bytes are refused, never made up. */
export class BytesLost extends InputOutputRefused {
  readonly code = 'standin.bytes-lost'
  constructor(volume: string, offsetBytes: bigint, present: number, needed: number) {
    super({
      what: `${volume} cannot be read at byte ${offsetBytes}.`,
      why: `${present} pieces of that stripe are left, and it takes ${needed}.`,
      remedy: 'Bring back a drive or node that holds one of the others.',
    })
  }
}

/** Too few pieces could be written for the write to survive one more loss. */
export class NotWritable extends InputOutputRefused {
  readonly code = 'standin.not-writable'
  constructor(volume: string, present: number, needed: number) {
    super({
      what: `Nothing was written to ${volume}.`,
      why: `Only ${present} of its failure domains can be written there, and a write takes ${needed}.`,
      remedy: 'Bring back a node, or wait until pieces have been made anew.',
    })
  }
}
