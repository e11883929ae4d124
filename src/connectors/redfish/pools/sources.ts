import type { Connection } from '../Connection'
import { isCapacitySource, isLinkList, type RedfishSource } from './schema'

interface List {
  readonly '@odata.id'?: string
  readonly Members?: readonly { readonly '@odata.id': string }[]
}

/** A list of links that stands in its resource, or is a resource of its own, whichever the system has chosen. */
async function listed(
  connection: Connection,
  list: List | undefined,
): Promise<{ Members: { '@odata.id': string }[] } | undefined> {
  if (list === undefined) return undefined
  if (list.Members !== undefined) return { Members: [...list.Members] }
  const locator = list['@odata.id']
  if (locator === undefined) return undefined
  const Members: { '@odata.id': string }[] = []
  const pages = new Set<string>()
  for (let next: string | undefined = locator; next !== undefined && !pages.has(next); ) {
    pages.add(next)
    const page: { Members: { '@odata.id': string }[]; 'Members@odata.nextLink'?: string | null } =
      await connection.read(next, isLinkList)
    for (const member of page.Members) Members.push(member)
    next = page['Members@odata.nextLink'] ?? undefined
  }
  return { Members }
}

/** Whether what gives a pool or volume its space stands in it whole. */
const isWhole = ({ CapacitySources }: { CapacitySources?: RedfishSource[] }) =>
  CapacitySources === undefined ||
  CapacitySources.every(
    source =>
      !(Object.keys(source).length === 1 && '@odata.id' in source) &&
      source.ProvidingDrives?.['@odata.id'] === undefined &&
      source.ProvidingPools?.['@odata.id'] === undefined,
  )

/** What gives a pool or volume its space, with links followed where the system states links. Source: Swordfish, CapacitySource. */
export const withSources = <T extends { CapacitySources?: RedfishSource[] }>(
  connection: Connection,
  body: T,
): T | Promise<T> => (isWhole(body) ? body : followed(connection, body))

async function followed<T extends { CapacitySources?: RedfishSource[] }>(connection: Connection, body: T): Promise<T> {
  const sources: RedfishSource[] = []
  for (const each of body.CapacitySources ?? []) {
    const source = await connection.whole(each, isCapacitySource)
    const drives = await listed(connection, source.ProvidingDrives)
    const pools = await listed(connection, source.ProvidingPools)
    sources.push({
      ...(drives === undefined ? {} : { ProvidingDrives: drives }),
      ...(pools === undefined ? {} : { ProvidingPools: pools }),
    })
  }
  return { ...body, CapacitySources: sources }
}
