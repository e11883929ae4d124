import { hostAgent } from '@/connectors'
import { hasAgent } from '@/core/estate'
import { settings, type Scope } from '@/records'
import { agentSecretId } from '@/records/inventory'
import { object } from '@/records/objects'
import { openSecret } from '@/records/secrets'
import { NoAgent } from './errors'

/** Where a name leads to as a host sees it, and whether the host gets through to there. @throws {NoAgent} and what the connector throws */
export async function connectFromHost(scope: Scope, key: Buffer, hostId: string, server: string, stop: AbortSignal) {
  const host = await object(scope, 'hosts', hostId)
  if (host === undefined || !hasAgent(host)) throw new NoAgent()
  const secretId = await agentSecretId(scope, host.agentAddress)
  const credential = secretId === undefined ? undefined : await openSecret(scope, key, secretId, 'agent')
  const agent = await hostAgent(host.agentAddress, stop, (await settings(scope)).addresses, credential)
  const { address, isOpen, milliseconds } = await agent.shares.connect(server)
  return { address, isOpen, milliseconds, at: new Date().toISOString() }
}
