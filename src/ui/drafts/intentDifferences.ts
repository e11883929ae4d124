import isEqual from 'fast-deep-equal'

const mostCharacters = 60

/** A field's name as words: `snapshotSharePercent` is `snapshot share percent`. */
const inWords = (field: string) => field.replace(/([A-Z])/g, ' $1').toLowerCase()

const shown = (value: unknown): string => {
  const text = typeof value === 'string' ? value : (JSON.stringify(value) ?? '')
  if (text === '') return 'nothing'
  return text.length > mostCharacters ? `${text.slice(0, mostCharacters)}…` : text
}

/** What two states of a draft say otherwise, field by field: what stands here, and what stands at the server. */
export function intentDifferences(here: unknown, there: unknown): string[] {
  const fieldsOf = (intent: unknown) =>
    typeof intent === 'object' && intent !== null ? (intent as Readonly<Record<string, unknown>>) : {}
  const [own, other] = [fieldsOf(here), fieldsOf(there)]
  return [...new Set([...Object.keys(own), ...Object.keys(other)])]
    .filter(field => !isEqual(own[field], other[field]))
    .map(field => `${inWords(field)}: ${shown(own[field])} here, ${shown(other[field])} there`)
}
