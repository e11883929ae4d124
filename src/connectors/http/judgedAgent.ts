import { lookup } from 'node:dns'
import http from 'node:http'
import https from 'node:https'
import net from 'node:net'
import type { Duplex } from 'node:stream'
import tls from 'node:tls'
import { whyBarred } from '@/core/network'
import { AddressBarred, CertificateChanged, NotReached } from './errors'

/** Where a system is, and whose certificate is accepted there. */
export interface Endpoint {
  readonly address: string
  /** SHA-256 fingerprint of a certificate that no authority signs but an administrator has accepted. */
  readonly acceptedFingerprint: string | null
  /** Networks as CIDR that may be spoken to although they are barred by themselves, as text. Left out: every address may be. */
  readonly allowedNetworks?: string
}

/** What a certificate was found to be, before anything was said over its connection. */
export interface Certificate {
  readonly fingerprint: string | null
  readonly trouble: string | null
  /** Until when it is valid; null where there is none, or it does not say. */
  readonly endsAt: Date | null
}

export const certificateOf = (socket: unknown): Certificate => {
  if (!(socket instanceof tls.TLSSocket)) return { fingerprint: null, trouble: null, endsAt: null }
  const trouble: unknown = socket.authorizationError
  const shown = socket.getPeerCertificate()
  return {
    fingerprint: shown.fingerprint256 ?? null,
    trouble: trouble === null || trouble === undefined ? null : String(trouble),
    endsAt: endOf(shown),
  }
}

/** Until when a certificate is valid, as it was shown. Source: RFC 5280, 4.1.2.5. */
export function endOf({ valid_to }: { readonly valid_to?: string }): Date | null {
  const at = new Date(valid_to ?? '')
  return Number.isNaN(at.getTime()) ? null : at
}

type Connected = (cause: Error | null, socket?: Duplex) => void

/** Resolves a name to those of its addresses that may be spoken to; an error that says why where none of them may. */
const guardedLookup =
  (address: string, allowed: string | undefined): net.LookupFunction =>
  (hostname, options, answer) => {
    lookup(hostname, { ...options, all: true }, (cause, found) => {
      if (cause !== null) return answer(cause, '', 0)
      const open = allowed === undefined ? found : found.filter(each => whyBarred(each.address, allowed) === undefined)
      const [first] = open
      if (first === undefined)
        return answer(new AddressBarred(address, whyBarred(found[0]?.address ?? '', allowed ?? '') ?? ''), '', 0)
      if (options.all === true) return answer(null, open)
      answer(null, first.address, first.family)
    })
  }

/**
 * An address of a host to which something may be sent, for what speaks no HTTP: it is connected to as it was judged.
 * @throws {AddressBarred | NotReached}
 */
export function openAddress(address: string, host: string, allowed: string | undefined): Promise<string> {
  return new Promise((resolve, reject) => {
    if (net.isIP(host) !== 0) {
      const why = allowed === undefined ? undefined : whyBarred(host, allowed)
      return why === undefined ? resolve(host) : reject(new AddressBarred(address, why))
    }
    guardedLookup(address, allowed)(host, {}, (cause, found) => {
      if (cause === null && typeof found === 'string') resolve(found)
      else reject(cause instanceof AddressBarred ? cause : new NotReached(address, 'Its name is not known.', { cause }))
    })
  })
}

/** A certificate that was accepted by its fingerprint, else one that a known authority signed for this name. */
function isAccepted({ fingerprint, trouble }: Certificate, accepted: string | null): boolean {
  return trouble === null || (accepted !== null && fingerprint === accepted)
}

/**
 * Connects, and hands the connection over only once the other side is known: a certificate is judged at the end of the handshake, when
 * no byte of a request has been sent.
 */
function connect(endpoint: Endpoint, isAnyCertificateTaken: boolean, connected: Connected): void {
  const url = new URL(endpoint.address)
  const host = url.hostname.replace(/^\[|\]$/g, '')
  const isEncrypted = url.protocol === 'https:'
  const port = Number(url.port === '' ? (isEncrypted ? 443 : 80) : url.port)
  if (net.isIP(host) !== 0 && endpoint.allowedNetworks !== undefined) {
    const why = whyBarred(host, endpoint.allowedNetworks)
    if (why !== undefined) return connected(new AddressBarred(endpoint.address, why))
  }
  const options = {
    host,
    port,
    lookup: guardedLookup(endpoint.address, endpoint.allowedNetworks),
    autoSelectFamily: true,
  }
  let isHandedOver = false
  const once: Connected = (cause, socket) => {
    if (isHandedOver) return
    isHandedOver = true
    connected(cause, socket)
  }
  if (!isEncrypted) {
    const plain = net.connect(options)
    plain.once('connect', () => once(null, plain))
    plain.once('error', once)
    return
  }
  // Not refused by TLS itself, so that the certificate can be named; and no session is resumed, since that shows none.
  const socket = tls.connect({ ...options, servername: net.isIP(host) === 0 ? host : '', rejectUnauthorized: false })
  socket.once('error', once)
  socket.once('secureConnect', () => {
    if (isAnyCertificateTaken || isAccepted(certificateOf(socket), endpoint.acceptedFingerprint))
      return once(null, socket)
    socket.destroy()
    once(new CertificateChanged(endpoint.address))
  })
}

/** An agent for one endpoint; its connections serve no other. */
function agentFor(endpoint: Endpoint, isAnyCertificateTaken: boolean, keepAlive: boolean): http.Agent {
  const Kind = endpoint.address.startsWith('https:') ? https.Agent : http.Agent
  const agent = new Kind({ keepAlive, maxSockets: 6, timeout: 60_000 })
  // Node lets an agent connect in its own way and in its own time; its types know only the first.
  return Object.assign(agent, {
    createConnection: (_: unknown, connected: Connected) => connect(endpoint, isAnyCertificateTaken, connected),
  })
}

const mostAgents = 1000
const agents = new Map<string, http.Agent>()

/**
 * The agent that speaks to an endpoint.
 * @param kind `kept`: its connections are used again; `own`: a connection of its own; `any`: as `own`, and every certificate is taken
 */
export function judgedAgent(endpoint: Endpoint, kind: 'kept' | 'own' | 'any'): http.Agent {
  if (kind !== 'kept') return agentFor(endpoint, kind === 'any', false)
  const key = JSON.stringify([new URL(endpoint.address).origin, endpoint.acceptedFingerprint, endpoint.allowedNetworks])
  const known = agents.get(key)
  if (known !== undefined) return known
  const made = agentFor(endpoint, false, true)
  agents.set(key, made)
  const [oldest] = agents.keys()
  if (agents.size > mostAgents && oldest !== undefined) {
    agents.get(oldest)?.destroy()
    agents.delete(oldest)
  }
  return made
}
