import { identify, lookAt, probeFound, type SystemIdentified } from '@/connectors/redfish'
import type { Probe } from '@/core/estate'
import type { Identity } from '@/core/views'
import { settings, type Scope } from '@/records'
import { keepProbe } from '@/records/inventory'
import { NoAddress, NotAccepted } from './errors'

/** An address as an administrator writes it: a bare host name means HTTPS. @throws {NoAddress} */
function addressOf(text: string): string {
  const whole = /^https?:\/\//i.test(text.trim()) ? text.trim() : `https://${text.trim()}`
  if (text.trim() === '' || !URL.canParse(whole)) throw new NoAddress(text)
  const { origin, username, password } = new URL(whole)
  if (username !== '' || password !== '') throw new NoAddress(text.replace(/\/\/.*@/, '//…@'))
  return origin
}

const identified = async (scope: Scope, address: string, stop: AbortSignal): Promise<SystemIdentified> =>
  identify({ address, allowedNetworks: (await settings(scope)).addresses }, stop)

/** @throws {NoAddress} and what the connector throws */
export async function identifySystem(scope: Scope, text: string, stop: AbortSignal): Promise<Identity> {
  const { root, ...seen } = await identified(scope, addressOf(text), stop)
  return {
    ...seen,
    maker: root.Vendor ?? null,
    model: root.Product ?? null,
    uuid: root.UUID ?? null,
    redfishVersion: root.RedfishVersion,
  }
}

/**
 * Looks at a management address before anything is registered, and keeps what was found with the credentials sealed for a day. They are
 * sent only once its certificate, or that it has none, was accepted.
 * @throws {NoAddress | NotAccepted} and what the connector throws
 */
export async function lookAtSystem(
  scope: Scope,
  key: Buffer,
  asked: {
    readonly address: string
    readonly userName: string
    readonly password: string
    readonly madeBy: string
    readonly acceptedFingerprint: string | null
    readonly isPlainHttpAccepted: boolean
  },
  stop: AbortSignal,
): Promise<Probe> {
  const { userName, password, madeBy } = asked
  const address = addressOf(asked.address)
  const seen = await identified(scope, address, stop)
  if (!seen.isEncrypted && !asked.isPlainHttpAccepted)
    throw new NotAccepted(address, 'It is plain HTTP: name and password could be read on the way.')
  if (seen.certificateTrouble !== null && seen.certificateFingerprint !== asked.acceptedFingerprint)
    throw new NotAccepted(address, `No known authority signed its certificate (${seen.certificateTrouble}).`)
  const acceptedFingerprint = seen.certificateTrouble === null ? null : seen.certificateFingerprint
  const { addresses: allowedNetworks } = await settings(scope)
  const look = await lookAt({ address, acceptedFingerprint, allowedNetworks }, seen, { userName, password }, stop)
  const found = probeFound(look)
  const id = await keepProbe(
    scope,
    key,
    found,
    { address, acceptedFingerprint, userName, password, uuid: found.uuid },
    madeBy,
  )
  return { ...found, id, at: new Date().toISOString() }
}
