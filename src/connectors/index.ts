import type { Probe } from '@/core/estate'
import { WendrelError } from '@/core/errors'
import type { Identity } from '@/core/views'
import type { StorageSystem } from '@/ports'
import { hostAgent } from './host'
import { directoryReader, identifyDirectory } from './ldap'
import type { Endpoint } from './http'
import { nodeAgent } from './node'
import { redfish } from './redfish'

export { directoryReader, hostAgent, identifyDirectory, nodeAgent }
export { tellerFor } from './telling'

/** By whom a system is entered. */
export interface Credentials {
  readonly userName: string
  readonly password: string
}

/** Who answers at an address, and in which protocol. */
export interface Identified {
  readonly protocol: string
  readonly identity: Identity
}

/**
 * A way to speak to storage systems. What is above it (drafting, worker, records) knows no protocol: credentials, enrolling and
 * collecting are the same for all.
 */
export interface Protocol {
  /** Sees who answers, and sends nothing that is worth knowing. @throws where this protocol is not spoken there */
  readonly identify: (endpoint: Omit<Endpoint, 'acceptedFingerprint'>, stop: AbortSignal) => Promise<Identity>
  /** Looks at a system whose identity has been accepted; another certificate or UUID gets no password. */
  readonly lookAt: (
    endpoint: Endpoint,
    accepted: Identity,
    credentials: Credentials,
    stop: AbortSignal,
  ) => Promise<Omit<Probe, 'id' | 'at'>>
  /** Nothing is asked of the system until the first call. */
  readonly reach: (
    endpoint: Endpoint & { readonly uuid?: string },
    credentials: Credentials,
    stop: AbortSignal,
  ) => StorageSystem
}

/** A further protocol is a folder beside these and a line here. */
const protocols: Readonly<Record<string, Protocol>> = { redfish }

/** @throws {UnknownProtocol} */
export function protocolNamed(name: string): Protocol {
  const found = Object.hasOwn(protocols, name) ? protocols[name] : undefined
  if (found === undefined) throw new UnknownProtocol(name)
  return found
}

/** Asks in each protocol who answers at an address; the first that is understood is taken. @throws what the last one throws */
export async function identify(
  endpoint: Omit<Endpoint, 'acceptedFingerprint'>,
  stop: AbortSignal,
): Promise<Identified> {
  let failed: unknown
  for (const [protocol, { identify: ask }] of Object.entries(protocols)) {
    try {
      return { protocol, identity: await ask(endpoint, stop) }
    } catch (cause) {
      failed = cause
    }
  }
  throw failed
}

/** The records name a protocol that this version does not speak. */
class UnknownProtocol extends WendrelError {
  readonly code = 'connection.unknown-protocol'
  constructor(name: string) {
    super({
      what: 'The system was not spoken to.',
      why: `It is registered for the protocol ${JSON.stringify(name.slice(0, 40))}, which this version does not speak.`,
      remedy: 'Start the version by which it was registered, or register the system anew.',
    })
  }
}
