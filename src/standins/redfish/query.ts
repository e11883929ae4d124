import { Refused } from '../array'
import { root, type Body } from './body'
import type { Listing } from './Place'

/** What is asked for of a resource besides the resource itself. Source: DSP0266, query parameters. */
export interface Query {
  readonly skip: number
  readonly top: number
  readonly isExpanded: boolean
  readonly isOnly: boolean
  readonly select: readonly string[] | undefined
}

const pageMembers = 1000
const expansions = new Set(['.', '.($levels=1)'])

/** @throws {Refused} 501 for a parameter that the service does not offer, 400 for a value that it has not */
export function readQuery(given: Readonly<Record<string, unknown>>, isCollection: boolean): Query {
  for (const [name, value] of Object.entries(given)) {
    if (Array.isArray(value)) throw badParameter(name, 'It is given twice.')
    // Unknown parameters without a dollar sign are passed over, as the standard asks.
    if (!name.startsWith('$')) continue
    const isOffered = name === '$select' || (isCollection && ['$skip', '$top', '$expand'].includes(name))
    if (!isOffered) throw notOffered(name)
  }
  const expand = given['$expand'] as string | undefined
  if (expand !== undefined && !expansions.has(expand)) throw notOffered(`$expand=${expand}`)
  if (given['only'] !== undefined && Object.keys(given).length > 1)
    throw badParameter('only', 'It stands with no other parameter.')
  return {
    skip: whole('$skip', given['$skip'], 0),
    top: Math.min(pageMembers, whole('$top', given['$top'], pageMembers)),
    isExpanded: expand !== undefined,
    isOnly: given['only'] !== undefined,
    select: (given['$select'] as string | undefined)?.split(',').filter(each => each !== ''),
  }
}

function whole(name: string, given: unknown, otherwise: number): number {
  if (given === undefined) return otherwise
  if (typeof given !== 'string' || !/^\d{1,9}$/.test(given)) throw badParameter(name, 'It is a whole number from zero.')
  return Number(given)
}

const notOffered = (name: string) =>
  new Refused(
    501,
    'Base.1.18.QueryNotSupported',
    { what: 'The request was not answered.', why: `${name} is not offered here.`, remedy: 'Ask without it.' },
    { arguments: [name] },
  )
const badParameter = (name: string, why: string) =>
  new Refused(
    400,
    'Base.1.18.QueryParameterValueError',
    { what: 'The request was not answered.', why: `${name}: ${why}`, remedy: 'Correct the parameter.' },
    { arguments: [name] },
  )

/** A collection's body: links, or whole members under `$expand`, in pages of a thousand with a next link. */
export function collection(path: string, { type, title, count, memberAt }: Listing, query: Query): Body {
  if (query.isOnly && count === 1) return memberAt(0)
  const { skip, top, isExpanded, select } = query
  const page = Array.from({ length: Math.max(0, Math.min(top, count - skip)) }, (_, index) => memberAt(skip + index))
  const next = skip + page.length
  const rest = isExpanded ? '&$expand=.' : ''
  const picked = select === undefined ? '' : `&$select=${select.join(',')}`
  return {
    '@odata.id': `${root}/${path}`,
    '@odata.type': `#${type}.${type}`,
    Name: title,
    'Members@odata.count': count,
    Members: isExpanded
      ? page.map(member => selected(member, select))
      : page.map(member => ({ '@odata.id': member['@odata.id'] })),
    ...(next < count && top > 0 ? { 'Members@odata.nextLink': `${root}/${path}?$skip=${next}${rest}${picked}` } : {}),
  }
}

/** Of a resource, the properties that are asked for and what every resource bears; `Status/Health` reaches within one. */
export function selected(body: Body, wanted: readonly string[] | undefined): Body {
  if (wanted === undefined) return body
  const kept = new Map<string, string[]>()
  for (const each of wanted) {
    const [name = '', ...within] = each.split('/')
    kept.set(name, [...(kept.get(name) ?? []), ...(within.length === 0 ? [] : [within.join('/')])])
  }
  const entries = Object.entries(body).flatMap(([name, value]): [string, unknown][] => {
    if (name.startsWith('@odata.')) return [[name, value]]
    const within = kept.get(name)
    if (within === undefined) return []
    const isNested = within.length > 0 && typeof value === 'object' && value !== null && !Array.isArray(value)
    return [[name, isNested ? selected(value as Body, within) : value]]
  })
  return Object.fromEntries(entries)
}
