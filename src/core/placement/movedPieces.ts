/**
 * Pieces that stand on a drive where their stripe had none before.
 * @param before, after drive indexes, `width` a stripe; drives must be counted alike in both
 */
export function movedPieces(before: Int32Array, after: Int32Array, width: number): number {
  let moved = 0
  for (let at = 0; at < after.length; at += width) {
    for (let piece = at; piece < at + width; piece += 1) {
      let isNew = true
      for (let other = at; other < at + width && isNew; other += 1) isNew = before[other] !== after[piece]
      if (isNew) moved += 1
    }
  }
  return moved
}
