import { hasAgent } from '@/core/estate'
import type { ConnectionPage } from '@/core/views'
import { connectionTests, latestConnectionTests } from '../connections'
import type { Scope } from '../database'
import { objects } from '../objects'

const mostShares = 500
const mostHosts = 1000
const mostLatest = 12

/** Hosts that can try a share, the shares, and what was found of both that are chosen. */
export async function connectionPage(scope: Scope, hostId: string, shareId: string): Promise<ConnectionPage> {
  const hosts = await objects(scope, 'hosts', { order: [['name', 'ASC']], limit: mostHosts })
  const shares = await objects(scope, 'shares', { order: [['name', 'ASC']], limit: mostShares })
  return {
    hosts: hosts.filter(hasAgent).map(({ id, name, addresses }) => ({ id, name, addresses })),
    shares: shares.map(({ id, name, protocols, fileServiceId }) => ({ id, name, protocols, fileServiceId })),
    services: await objects(scope, 'fileServices'),
    tests: hostId === '' || shareId === '' ? [] : await connectionTests(scope, hostId, shareId),
    latest: await latestConnectionTests(scope, mostLatest),
  }
}
