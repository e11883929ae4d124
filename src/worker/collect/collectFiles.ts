import { readClient, type ExportRule } from '@/core/access'
import { those } from '@/core/estate'
import { directoryFindings, fileFindings } from '@/core/findings'
import { lookUpNames } from '@/looking'
import { loadEstate } from '@/records'
import { keepFindings } from '@/records/inventory'
import { objects } from '@/records/objects'
import type { World } from '../World'

const namesAgeMilliseconds = 5 * 60_000
/** So many hosts are looked up. */
const mostHosts = 1000

const isByName = ({ client }: Pick<ExportRule, 'client'>) => {
  const read = readClient(client)
  return 'kind' in read && read.kind === 'name'
}

/** What follows from a reading of a system that serves files: names asked again, and what is wrong with its services and shares. */
export async function collectFiles(world: World, systemId: string): Promise<void> {
  const scope = { database: world.database }
  const { directories, fileServices, hosts, shares, nameAnswers } = await loadEstate(
    scope,
    [those('shares', 'systemId', systemId)],
    'provision-share',
  )
  const own = fileServices.filter(service => service.systemId === systemId)
  const since = Date.now() - namesAgeMilliseconds
  const fresh = new Set(
    nameAnswers.filter(({ at }) => Date.parse(at) > since).map(({ kind, query }) => `${kind}/${query}`),
  )
  const names = own.map(({ name }) => name).filter(name => !fresh.has(`forward/${name}`))
  // Rules may be for hosts by their names: what those are the name server says.
  const askedByName = shares.some(({ rules }) => rules.some(isByName)) ? hosts.slice(0, mostHosts) : []
  const addresses = [
    ...own.flatMap(({ instances }) => instances.map(({ address }) => address)),
    ...askedByName.flatMap(host => host.addresses.slice(0, 1)),
  ].filter(address => !fresh.has(`reverse/${address}`))
  const looked = names.length + addresses.length === 0 ? [] : await lookUpNames(scope, names, addresses)
  const isOld = (each: (typeof nameAnswers)[number]) =>
    looked.some(({ kind, query }) => kind === each.kind && query === each.query)
  const answers = [...looked, ...nameAnswers.filter(each => !isOld(each))]
  const granted = [...new Set([...shares, ...own].flatMap(({ grants }) => grants.map(({ who }) => who)))]
  const people = granted.length === 0 ? [] : await objects(scope, 'principals', { where: { durableId: granted } })
  await keepFindings(scope, systemId, 'files', [
    ...fileFindings(own, shares, answers),
    ...directoryFindings(own, shares, directories, people, new Date()),
  ])
}
