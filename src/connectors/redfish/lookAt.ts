import type { Inventory } from '@/ports'
import { exchange, UnreadableAnswer } from '../http'
import type { Credentials } from './Connection'
import { NoStorageSystem } from './errors'
import { redfishSystem } from './redfishSystem'
import { isServiceRoot } from './schemas'

export interface FirstLook {
  readonly address: string
  readonly isEncrypted: boolean
  readonly certificateFingerprint: string | null
  readonly certificateTrouble: string | null
  readonly inventory: Inventory
}

/**
 * Looks at an address before anything is registered: what certificate it shows, whether it is a storage system, whether it
 * lets us in, and what it has. Changes nothing there but for the session that it opens.
 */
export async function lookAt(address: string, credentials: Credentials, stop: AbortSignal): Promise<FirstLook> {
  const first = await exchange({ address, acceptedFingerprint: null }, 'GET', '/redfish/v1', {
    stop,
    anyCertificate: true,
  })
  let body: unknown
  try {
    body = JSON.parse(first.text)
  } catch (cause) {
    throw new NoStorageSystem(address, 'It answers, but not as a Redfish service.', { cause })
  }
  if (first.status !== 200 || !isServiceRoot(body))
    throw new NoStorageSystem(address, 'It answers, but not as a Redfish service.')
  const acceptedFingerprint = first.certificateTrouble === null ? null : first.fingerprint
  const inventory = await redfishSystem({ address, acceptedFingerprint }, credentials, stop).inventory()
  if (inventory.identity.uuid === '')
    throw new UnreadableAnswer('/redfish/v1', 'The system states no UUID, by which it would be known again.')
  return {
    address,
    isEncrypted: address.startsWith('https:'),
    certificateFingerprint: first.fingerprint,
    certificateTrouble: first.certificateTrouble,
    inventory,
  }
}
