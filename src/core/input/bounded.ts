import { isStorable } from './storable'

/** How deep and how wide a document from outside may be. */
export interface Bounds {
  readonly depth: number
  /** Members of objects and lists in all (count). */
  readonly members: number
}

/**
 * Why a document from outside is not looked at any further; undefined where it is within its bounds and every text in it can be kept.
 * Walks without recursion: a document that is only depth must not end the process.
 */
export function outOfBounds(document: unknown, { depth, members }: Bounds): string | undefined {
  const open: { readonly value: unknown; readonly depth: number }[] = [{ value: document, depth: 0 }]
  let seen = 0
  for (let next = open.pop(); next !== undefined; next = open.pop()) {
    const { value } = next
    if (typeof value === 'string' && !isStorable(value)) return 'A text in it holds a NUL or half a character.'
    if (typeof value !== 'object' || value === null) continue
    if (next.depth >= depth) return `It is nested more than ${depth} deep.`
    for (const [name, each] of Object.entries(value)) {
      seen += 1
      if (seen > members) return `It has more than ${members} members.`
      if (!isStorable(name)) return 'A name in it holds a NUL or half a character.'
      open.push({ value: each, depth: next.depth + 1 })
    }
  }
  return undefined
}
