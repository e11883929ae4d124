const isHalf = (unit: number) => unit >= 0xd800 && unit <= 0xdfff

/** The order of paths by code points, which is that of their bytes in UTF-8: the order in which a walk tells them. Source: RFC 3629, 1. */
export function comparePaths(a: string, b: string): number {
  const length = Math.min(a.length, b.length)
  for (let at = 0; at < length; at += 1) {
    const [one, other] = [a.charCodeAt(at), b.charCodeAt(at)]
    if (one === other) continue
    // Halves of a pair stand for what lies beyond every whole unit.
    return isHalf(one) === isHalf(other) ? one - other : isHalf(one) ? 1 : -1
  }
  return a.length - b.length
}
