import type { Probe } from '@/core/estate'
import type { Identity } from '@/core/views'
import { exchange, UnreadableAnswer, type Endpoint } from '../../http'
import type { Credentials } from '../session'
import { NoStorageSystem } from '../errors'
import { redfishSystem } from '../redfishSystem'
import { probeFound } from './probeFound'
import { isServiceRoot } from './schema'

/**
 * Sees who answers at an address and by which certificate, and sends nothing that is worth knowing: what an administrator decides on
 * before any password leaves.
 */
export async function identify(endpoint: Omit<Endpoint, 'acceptedFingerprint'>, stop: AbortSignal): Promise<Identity> {
  const { address } = endpoint
  const first = await exchange({ ...endpoint, acceptedFingerprint: null }, 'GET', '/redfish/v1', {
    stop,
    isAnyCertificateTaken: true,
    mostBytes: 1_000_000,
  })
  let body: unknown
  try {
    body = JSON.parse(first.text)
  } catch (cause) {
    throw new NoStorageSystem(address, 'It answers, but not as a Redfish service.', { cause })
  }
  if (first.status !== 200 || !isServiceRoot(body))
    throw new NoStorageSystem(address, 'It answers, but not as a Redfish service.')
  if ((body.UUID ?? '') === '')
    throw new UnreadableAnswer('/redfish/v1', 'The system states no UUID, by which it would be known again.')
  return {
    address,
    isEncrypted: address.startsWith('https:'),
    certificateFingerprint: first.fingerprint,
    certificateTrouble: first.certificateTrouble,
    maker: body.Vendor ?? null,
    model: body.Product ?? null,
    uuid: body.UUID ?? null,
    redfishVersion: body.RedfishVersion,
  }
}

/**
 * Looks at a system whose identity has been accepted: whether it is a storage system, whether it lets us in, and what it has. Changes
 * nothing there but for the session that it opens and closes.
 * @param accepted what was accepted; another certificate or UUID gets no password
 */
export async function lookAt(
  endpoint: Endpoint,
  accepted: Identity,
  credentials: Credentials,
  stop: AbortSignal,
): Promise<Omit<Probe, 'id' | 'at'>> {
  const system = redfishSystem({ ...endpoint, uuid: accepted.uuid ?? '' }, credentials, stop)
  try {
    return probeFound(accepted, await system.inventory())
  } finally {
    await system.signOut()
  }
}
