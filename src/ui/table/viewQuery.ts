/** Words of an address that say what is open in it, not how the list stands. */
const passing = new Set(['sel', 'draft', 'change', 'finding', 'drive', 'node', 'port'])

/** How a list stands, of an address's words: in one order, so that the same view reads the same. */
export function viewQuery(query: URLSearchParams): string {
  const kept = [...query].filter(([name, value]) => !passing.has(name) && value !== '')
  return new URLSearchParams(kept.sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0))).toString()
}
