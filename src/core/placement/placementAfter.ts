/**
 * Lets a stripe's pieces keep their places in the code: those whose drive stays keep their index, the others take the drives
 * that are newly wanted. Which data or parity a drive holds would otherwise change, and all would have to be written anew.
 * @param before drive of each piece, by piece index; −1 where it is lost
 * @param wanted the drives on which the pieces shall stand, in any order
 * @returns drive of each piece, by piece index
 */
export function placementAfter(before: readonly number[], wanted: readonly number[]): number[] {
  const staying = new Set(before.filter(drive => wanted.includes(drive)))
  const coming = wanted.filter(drive => !staying.has(drive))
  return before.map(drive => (staying.has(drive) ? drive : (coming.shift() ?? -1)))
}
