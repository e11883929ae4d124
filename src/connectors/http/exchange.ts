import http from 'node:http'
import https from 'node:https'
import { WendrelError } from '@/core/errors'
import { AnswerLate, LeftOrigin, NotReached, Redirected, UnreadableAnswer } from './errors'
import { certificateOf, judgedAgent, type Endpoint } from './judgedAgent'

export interface Exchanged {
  readonly status: number
  readonly headers: Readonly<Record<string, string | string[] | undefined>>
  readonly text: string
  readonly fingerprint: string | null
  readonly certificateTrouble: string | null
}

const patienceMilliseconds = 15_000
const largestAnswerBytes = 64 * 1024 * 1024

/** The address of a path of a system. @throws {LeftOrigin} where the path leads to another system than the one it came from */
export function urlWithin({ address }: Endpoint, path: string): URL {
  if (!URL.canParse(path, address)) throw new LeftOrigin(address, path)
  const url = new URL(path, address)
  if (url.origin !== new URL(address).origin || url.username !== '' || url.password !== '')
    throw new LeftOrigin(address, path)
  return url
}

/**
 * One request and its answer: the only place that meets the wire. Nothing is sent before the other side is known, nothing leaves the
 * system's origin, and no redirect is followed.
 *
 * @param options.isAnyCertificateTaken for a first look that sends nothing worth knowing
 * @throws {NotReached | AnswerLate | CertificateChanged | AddressBarred | LeftOrigin | Redirected}
 */
export function exchange(
  endpoint: Endpoint,
  method: string,
  path: string,
  options: {
    readonly headers?: Readonly<Record<string, string>>
    readonly body?: unknown
    readonly stop?: AbortSignal
    readonly isAnyCertificateTaken?: boolean
    readonly mostBytes?: number
  } = {},
): Promise<Exchanged> {
  const url = urlWithin(endpoint, path)
  const body = options.body === undefined ? undefined : JSON.stringify(options.body)
  const late = AbortSignal.timeout(patienceMilliseconds) // holds for the body too, not only for the headers
  const signal = options.stop === undefined ? late : AbortSignal.any([options.stop, late])
  const mostBytes = options.mostBytes ?? largestAnswerBytes
  return new Promise((resolve, reject) => {
    const fail = (cause: Error) => {
      // A kept connection that the other side closed meanwhile carried nothing: what only reads may be asked again.
      const isStale = request.reusedSocket && method === 'GET' && (cause as NodeJS.ErrnoException).code === 'ECONNRESET'
      if (isStale) exchange(endpoint, method, path, options).then(resolve, reject)
      else reject(named(cause, endpoint.address, path, late, options.stop))
    }
    const request = (url.protocol === 'https:' ? https : http).request(
      url,
      {
        method,
        // A change gets a connection of its own, so that a stale one cannot leave it in doubt.
        agent: judgedAgent(
          endpoint,
          options.isAnyCertificateTaken === true ? 'any' : method === 'GET' ? 'kept' : 'own',
        ),
        signal,
        maxHeaderSize: 65_536,
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
        const { fingerprint, trouble } = certificateOf(response.socket)
        const status = response.statusCode ?? 0
        if (status >= 300 && status < 400 && status !== 304) {
          request.destroy()
          return reject(new Redirected(endpoint.address, path, String(response.headers.location ?? 'nowhere')))
        }
        const parts: Buffer[] = []
        let bytes = 0
        response.on('data', (part: Buffer) => {
          bytes += part.length
          if (bytes > mostBytes) request.destroy(new UnreadableAnswer(path, `It is larger than ${mostBytes} bytes.`))
          else parts.push(part)
        })
        response.on('error', fail)
        response.on('end', () =>
          resolve({
            status,
            headers: response.headers,
            text: Buffer.concat(parts).toString('utf8'),
            fingerprint,
            certificateTrouble: trouble,
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
  if (cause instanceof WendrelError) return cause
  if (stop?.aborted === true) return stop.reason instanceof Error ? stop.reason : cause
  if (late.aborted) return new AnswerLate(path, patienceMilliseconds, { cause })
  const code = (cause as NodeJS.ErrnoException).code ?? ''
  const why =
    reasons[code] ??
    ('rawPacket' in cause || code.startsWith('ERR_SSL') ? 'What answers there speaks another protocol.' : cause.message)
  return new NotReached(address, why, { cause })
}
