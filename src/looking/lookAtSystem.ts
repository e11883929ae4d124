import { identify, protocolNamed, type Identified } from '@/connectors'
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

const identified = async (scope: Scope, address: string, stop: AbortSignal): Promise<Identified> =>
  identify({ address, allowedNetworks: (await settings(scope)).addresses }, stop)

/** @throws {NoAddress} and what the connector throws */
export async function identifySystem(scope: Scope, text: string, stop: AbortSignal): Promise<Identity> {
  return (await identified(scope, addressOf(text), stop)).identity
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
  const { protocol, identity: seen } = await identified(scope, address, stop)
  if (!seen.isEncrypted && !asked.isPlainHttpAccepted)
    throw new NotAccepted(address, 'It is plain HTTP: name and password could be read on the way.')
  if (seen.certificateTrouble !== null && seen.certificateFingerprint !== asked.acceptedFingerprint)
    throw new NotAccepted(address, `No known authority signed its certificate (${seen.certificateTrouble}).`)
  const acceptedFingerprint = seen.certificateTrouble === null ? null : seen.certificateFingerprint
  const { addresses: allowedNetworks } = await settings(scope)
  const endpoint = { address, acceptedFingerprint, allowedNetworks }
  const found = await protocolNamed(protocol).lookAt(endpoint, seen, { userName, password }, stop)
  const id = await keepProbe(
    scope,
    key,
    found,
    { protocol, address, acceptedFingerprint, userName, password, uuid: found.uuid },
    madeBy,
  )
  return { ...found, id, at: new Date().toISOString() }
}
