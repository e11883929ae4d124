import http from 'node:http'
import https from 'node:https'
import { WendrelError } from '@/core/errors'
import { AnswerLate, LeftOrigin, NotReached, Redirected, UnreadableAnswer } from './errors'
import { certificateOf, judgedAgent, type Endpoint } from './judgedAgent'
import { whileAwake } from './whileAwake'

export interface Exchanged {
  readonly status: number
  readonly headers: Readonly<Record<string, string | string[] | undefined>>
  readonly text: string
  readonly fingerprint: string | null
  readonly certificateTrouble: string | null
  readonly certificateEndsAt: Date | null
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
  options: ExchangeOptions = {},
): Promise<Exchanged> {
  const url = urlWithin(endpoint, path)
  const body = options.body === undefined ? undefined : JSON.stringify(options.body)
  const { signal, isLate, end } = whileAwake(patienceMilliseconds, options.stop) // holds for the body too, not only for the headers
  const exchanged = new Promise<Exchanged>((resolve, reject) => {
    const fail = (cause: Error) => {
      // A kept connection that the other side closed meanwhile carried nothing: what only reads may be asked again.
      const isStale = request.reusedSocket && method === 'GET' && (cause as NodeJS.ErrnoException).code === 'ECONNRESET'
      if (isStale) exchange(endpoint, method, path, options).then(resolve, reject)
      else reject(named(cause, endpoint.address, path, isLate(), options.stop))
    }
    // A change gets a connection of its own, so that a stale one cannot leave it in doubt.
    const trust = options.isAnyCertificateTaken === true ? 'any' : method === 'GET' ? 'kept' : 'own'
    const agent = judgedAgent(endpoint, trust)
    const request = (url.protocol === 'https:' ? https : http).request(
      url,
      { method, signal, agent, maxHeaderSize: 65_536, headers: headersOf(options.headers, body) },
      response => {
        const status = response.statusCode ?? 0
        if (status >= 300 && status < 400 && status !== 304) {
          request.destroy()
          return reject(new Redirected(endpoint.address, path, String(response.headers.location ?? 'nowhere')))
        }
        const { fingerprint, trouble, endsAt } = certificateOf(response.socket)
        const certificate = { fingerprint, certificateTrouble: trouble, certificateEndsAt: endsAt }
        gather(response, options.mostBytes ?? largestAnswerBytes, {
          tooLarge: most => request.destroy(new UnreadableAnswer(path, `It is larger than ${most} bytes.`)),
          fail,
          whole: text => resolve({ status, headers: response.headers, text, ...certificate }),
        })
      },
    )
    request.on('error', fail)
    request.end(body)
  })
  return exchanged.finally(end)
}

interface ExchangeOptions {
  readonly headers?: Readonly<Record<string, string>>
  readonly body?: unknown
  readonly stop?: AbortSignal
  readonly isAnyCertificateTaken?: boolean
  readonly mostBytes?: number
}

const headersOf = (own: ExchangeOptions['headers'], body: string | undefined) => ({
  Accept: 'application/json',
  'OData-Version': '4.0',
  ...own,
  ...(body === undefined ? {} : { 'Content-Type': 'application/json', 'Content-Length': Buffer.byteLength(body) }),
})

interface Gathering {
  readonly tooLarge: (mostBytes: number) => void
  readonly fail: (cause: Error) => void
  readonly whole: (text: string) => void
}

/** Gathers the body of an answer, as long as it is not larger than may be. */
function gather(response: http.IncomingMessage, mostBytes: number, { tooLarge, fail, whole }: Gathering): void {
  const parts: Buffer[] = []
  let bytes = 0
  response.on('data', (part: Buffer) => {
    bytes += part.length
    if (bytes > mostBytes) tooLarge(mostBytes)
    else parts.push(part)
  })
  response.on('error', fail)
  response.on('end', () => whole(Buffer.concat(parts).toString('utf8')))
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

function named(cause: Error, address: string, path: string, isLate: boolean, stop: AbortSignal | undefined): Error {
  if (cause instanceof WendrelError) return cause
  if (stop?.aborted === true) return stop.reason instanceof Error ? stop.reason : cause
  if (isLate) return new AnswerLate(path, patienceMilliseconds, { cause })
  const code = (cause as NodeJS.ErrnoException).code ?? ''
  const why =
    reasons[code] ??
    ('rawPacket' in cause || code.startsWith('ERR_SSL') ? 'What answers there speaks another protocol.' : cause.message)
  return new NotReached(address, why, { cause })
}
