import type { GrantPage } from '@/core/views'
import type { Scope } from '../database'
import { objectCount, objects } from '../objects'
import { hostsOnNetwork } from './sharePage'

/** So many columns can be looked at; the list of shares has all. */
const mostShares = 60

/** Shares, their services and the hosts whose addresses are known. */
export async function grantPage(scope: Scope): Promise<GrantPage> {
  return {
    shares: await objects(scope, 'shares', { order: [['name', 'ASC']], limit: mostShares }),
    shareCount: await objectCount(scope, 'shares', {}),
    services: await objects(scope, 'fileServices'),
    ...(await hostsOnNetwork(scope)),
  }
}
