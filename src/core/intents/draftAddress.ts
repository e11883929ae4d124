import type { IntentKind } from './IntentKind'

/**
 * Where a draft of a kind stands in the interface; undefined for kinds that nobody drafts by hand.
 * @param intent whose fields stand in the place; those that it lacks are left blank
 * @param changeId of the draft, where it is kept already
 */
export function draftAddress(
  { kind, place }: IntentKind,
  intent: Readonly<Record<string, unknown>>,
  changeId?: string,
): string | undefined {
  if (place === undefined) return undefined
  const valueOf = (field: string) => {
    const value: unknown = [intent[field]].flat()[0]
    return typeof value === 'string' ? encodeURIComponent(value) : ''
  }
  const filled = place.replace(/\{(\w+)\}/g, (_, field: string) => valueOf(field))
  const query = new URLSearchParams({ draft: kind, ...(changeId === undefined ? {} : { change: changeId }) })
  return `${filled}${filled.includes('?') ? '&' : '?'}${query}`
}

/** Where the command of a kind leads while nothing is chosen; undefined for what is only offered beside its object. */
export function commandAddress(kind: IntentKind): string | undefined {
  if (kind.begins !== undefined) return kind.begins
  return kind.place === undefined || kind.place.includes('{') ? undefined : draftAddress(kind, {})
}
