export type WriteLayout =
  | { readonly layout: 'mirror'; readonly copies: number }
  | { readonly layout: 'paritySmallWrite'; readonly parityDrives: number }
  | { readonly layout: 'fullStripe'; readonly dataPieces: number; readonly parityPieces: number }

/** Reads and writes of drives for one write of a host. A small write to a parity group reads old data and parities, and writes them. */
export function writeCost(written: WriteLayout): number {
  switch (written.layout) {
    case 'mirror':
      return written.copies
    case 'paritySmallWrite':
      return 2 + 2 * written.parityDrives
    case 'fullStripe':
      return (written.dataPieces + written.parityPieces) / written.dataPieces
  }
}

export interface SynchronousWrite {
  readonly roundTripSeconds: number
  readonly remoteWriteSeconds: number
  readonly bytes: number
  readonly bandwidthBytesPerSecond: number
  readonly localWriteSeconds: number
}

/** What a write costs that goes to both sides at once: the host waits for the slower of the two. */
export function synchronousWrite(write: SynchronousWrite) {
  const remotePathSeconds =
    write.roundTripSeconds + write.remoteWriteSeconds + write.bytes / write.bandwidthBytesPerSecond
  return {
    remotePathSeconds,
    addedSeconds: Math.max(0, remotePathSeconds - write.localWriteSeconds),
    responseSeconds: Math.max(remotePathSeconds, write.localWriteSeconds),
  }
}
