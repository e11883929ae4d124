/** All ids of a list from one to another, whichever stands first; only the second where the first is not in it. */
export function between(ids: readonly string[], from: string | undefined, to: string): readonly string[] {
  const [a, b] = [ids.indexOf(from ?? ''), ids.indexOf(to)]
  return a < 0 ? [to] : ids.slice(Math.min(a, b), Math.max(a, b) + 1)
}
