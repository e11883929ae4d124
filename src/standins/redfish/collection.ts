type Body = Readonly<Record<string, unknown>>

const pageMembers = 1000

/**
 * A collection's body: links, or whole members under `$expand`, in pages of a thousand with a next link.
 * Source: DSP0266, query parameters `$expand`, `$skip`, `$top`.
 */
export function collection(
  path: string,
  type: string,
  name: string,
  count: number,
  memberAt: (index: number) => Body,
  query: Readonly<Record<string, unknown>>,
): Body {
  const skip = Math.max(0, Number(query['$skip'] ?? 0) || 0)
  const top = Math.min(pageMembers, Math.max(1, Number(query['$top'] ?? pageMembers) || pageMembers))
  const isExpanded = query['$expand'] !== undefined
  const page = Array.from({ length: Math.max(0, Math.min(top, count - skip)) }, (_, index) => memberAt(skip + index))
  const next = skip + page.length
  return {
    '@odata.id': path,
    '@odata.type': `#${type}.${type}`,
    Name: name,
    'Members@odata.count': count,
    Members: isExpanded ? page : page.map(member => ({ '@odata.id': member['@odata.id'] })),
    ...(next < count ? { 'Members@odata.nextLink': `${path}?$skip=${next}${isExpanded ? '&$expand=.' : ''}` } : {}),
  }
}
