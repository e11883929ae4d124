import { lookAt, probeFound } from '@/connectors/redfish'
import type { Probe } from '@/core/estate'
import type { Scope } from '@/records'
import { keepProbe } from '@/records/inventory'
import { NoAddress } from './errors'

/** An address as an administrator writes it: a bare host name means HTTPS. @throws {NoAddress} */
function addressOf(text: string): string {
  const whole = /^https?:\/\//i.test(text.trim()) ? text.trim() : `https://${text.trim()}`
  if (text.trim() === '' || !URL.canParse(whole)) throw new NoAddress(text)
  return new URL(whole).origin
}

/**
 * Looks at a management address before anything is registered, and keeps what was found with the credentials sealed for a day.
 * @throws {NoAddress} and what the connector throws
 */
export async function lookAtSystem(
  scope: Scope,
  key: Buffer,
  asked: { readonly address: string; readonly userName: string; readonly password: string; readonly madeBy: string },
  stop: AbortSignal,
): Promise<Probe> {
  const { userName, password, madeBy } = asked
  const address = addressOf(asked.address)
  const look = await lookAt(address, { userName, password }, stop)
  const found = probeFound(look)
  const acceptedFingerprint = look.certificateTrouble === null ? null : look.certificateFingerprint
  const id = await keepProbe(scope, key, found, { address, acceptedFingerprint, userName, password }, madeBy)
  return { ...found, id, at: new Date().toISOString() }
}
