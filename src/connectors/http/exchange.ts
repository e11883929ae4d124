import http from 'node:http'
import https from 'node:https'
import type { TLSSocket } from 'node:tls'
import { AnswerLate, CertificateChanged, NotReached } from './errors'

/** Where a system is and whose certificate is accepted there. */
export interface Endpoint {
  readonly address: string
  /** SHA-256 fingerprint of a certificate that no authority signs but an administrator has accepted. */
  readonly acceptedFingerprint: string | null
}

export interface Exchanged {
  readonly status: number
  readonly headers: Readonly<Record<string, string | string[] | undefined>>
  readonly text: string
  readonly fingerprint: string | null
  readonly certificateTrouble: string | null
}

const patienceMilliseconds = 15_000
const largestAnswerBytes = 64 * 1024 * 1024
const agents = {
  http: new http.Agent({ keepAlive: true, maxSockets: 6 }),
  https: new https.Agent({ keepAlive: true, maxSockets: 6, rejectUnauthorized: false }),
}

/**
 * One request and its answer: the only place that meets the wire.
 * @throws {NotReached | AnswerLate | CertificateChanged}
 */
export function exchange(
  endpoint: Endpoint,
  method: string,
  path: string,
  options: {
    readonly headers?: Readonly<Record<string, string>>
    readonly body?: unknown
    readonly stop?: AbortSignal
    readonly anyCertificate?: boolean
  } = {},
): Promise<Exchanged> {
  const url = new URL(path, endpoint.address)
  const isEncrypted = url.protocol === 'https:'
  const body = options.body === undefined ? undefined : JSON.stringify(options.body)
  const late = AbortSignal.timeout(patienceMilliseconds) // holds for the body too, not only for the headers
  const signal = options.stop === undefined ? late : AbortSignal.any([options.stop, late])
  return new Promise((resolve, reject) => {
    const fail = (cause: Error) => {
      // A kept connection that the other side closed meanwhile carried nothing: what only reads may be asked again.
      const isStale = request.reusedSocket && method === 'GET' && (cause as NodeJS.ErrnoException).code === 'ECONNRESET'
      if (isStale) exchange(endpoint, method, path, options).then(resolve, reject)
      else reject(named(cause, endpoint.address, path, late, options.stop))
    }
    const request = (isEncrypted ? https : http).request(
      url,
      {
        method,
        // A change gets a connection of its own, so that a stale one cannot leave it in doubt.
        agent: method === 'GET' ? (isEncrypted ? agents.https : agents.http) : false,
        rejectUnauthorized: false, // judged below, where the certificate can be named
        signal,
        headers: {
          Accept: 'application/json',
          'OData-Version': '4.0',
          ...options.headers,
          ...(body === undefined
            ? {}
            : { 'Content-Type': 'application/json', 'Content-Length': Buffer.byteLength(body) }),
        },
      },
      response => {
        const certificate = isEncrypted ? (response.socket as TLSSocket).getPeerCertificate() : undefined
        const fingerprint = certificate?.fingerprint256 ?? null
        const trouble = isEncrypted ? ((response.socket as TLSSocket).authorizationError as unknown) : null
        const certificateTrouble = trouble === null || trouble === undefined ? null : String(trouble)
        const isTrusted =
          !isEncrypted ||
          certificateTrouble === null ||
          fingerprint === endpoint.acceptedFingerprint ||
          options.anyCertificate === true
        if (!isTrusted) {
          request.destroy()
          reject(new CertificateChanged(endpoint.address))
          return
        }
        const parts: Buffer[] = []
        let bytes = 0
        response.on('data', (part: Buffer) => {
          bytes += part.length
          if (bytes > largestAnswerBytes) request.destroy(new Error('The answer is larger than 64 MiB.'))
          parts.push(part)
        })
        response.on('error', fail)
        response.on('end', () =>
          resolve({
            status: response.statusCode ?? 0,
            headers: response.headers,
            text: Buffer.concat(parts).toString('utf8'),
            fingerprint,
            certificateTrouble,
          }),
        )
      },
    )
    request.on('error', fail)
    request.end(body)
  })
}

const reasons: Readonly<Record<string, string>> = {
  ECONNREFUSED: 'The host is there, but nothing listens on that port.',
  ENOTFOUND: 'The name is not known to the name server.',
  EAI_AGAIN: 'The name server did not answer.',
  ETIMEDOUT: 'The host did not answer.',
  EHOSTUNREACH: 'No way leads to that host.',
  ENETUNREACH: 'No way leads to that network.',
  ECONNRESET: 'The connection was cut by the other side.',
  EPROTO: 'The other side does not speak TLS there; perhaps the address should begin with http.',
}

function named(cause: Error, address: string, path: string, late: AbortSignal, stop: AbortSignal | undefined): Error {
  if (stop?.aborted === true) return stop.reason instanceof Error ? stop.reason : cause
  if (late.aborted) return new AnswerLate(path, patienceMilliseconds, { cause })
  const code = (cause as NodeJS.ErrnoException).code ?? ''
  const why =
    reasons[code] ??
    ('rawPacket' in cause || code.startsWith('ERR_SSL') ? 'What answers there speaks another protocol.' : cause.message)
  return new NotReached(address, why, { cause })
}
