import { namesOfAddresses } from '@/core/network'
import type { SharePage } from '@/core/views'
import { literal } from 'sequelize'
import { changesAbout } from '../changes'
import { row, type Scope } from '../database'
import { probesAndNames } from '../estate'
import { object, objectCount, objects } from '../objects'

const mostChanges = 12
/** So many hosts are given to choose from and to compute with. */
const mostHosts = 1000

/** One share with its neighbours and the latest changes that touched it. */
export async function sharePage(scope: Scope, id: string): Promise<SharePage | undefined> {
  const share = await object(scope, 'shares', id)
  if (share === undefined) return undefined
  const service = await object(scope, 'fileServices', share.fileServiceId)
  const volume = await object(scope, 'volumes', share.volumeId)
  const system = await object(scope, 'systems', share.systemId)
  if (service === undefined || volume === undefined || system === undefined) return undefined
  const missing = await row<{ readonly since: Date | null }>(
    scope,
    'select missing_since as since from shares where id = $1',
    [id],
  )
  return {
    share,
    missingSince: missing?.since?.toISOString() ?? null,
    service,
    volume,
    system,
    ...(await hostsOnNetwork(scope)),
    changes: await changesAbout(scope, id, mostChanges),
  }
}

/** Hosts by whose addresses rules can decide, and how many there are of them. */
export async function hostsOnNetwork(scope: Scope): Promise<Pick<SharePage, 'hosts' | 'hostCount'>> {
  const isKnown = literal(`addresses <> '[]'::jsonb`)
  const hosts = await objects(scope, 'hosts', { and: isKnown, order: [['name', 'ASC']], limit: mostHosts })
  const { nameAnswers } = await probesAndNames(scope)
  const nameOf = namesOfAddresses(nameAnswers)
  return {
    hosts: hosts.map(({ id, name, addresses, agentAddress }) => ({
      ...{ id, name, addresses, agentAddress },
      clientName: nameOf(addresses[0]),
    })),
    hostCount: await objectCount(scope, 'hosts', { and: isKnown }),
  }
}
