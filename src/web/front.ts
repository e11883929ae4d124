import compression from 'compression'
import { randomBytes } from 'node:crypto'
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import { networksOf, peerOf } from './peer'
import { always, overTls, policyOfData, policyOfPages } from './securityHeaders'

/** What stands behind: answers a request whose limits and sender are known. */
export type Behind = (request: IncomingMessage, response: ServerResponse) => Promise<void>

/** No operation takes more; each states its own limit below this. */
const mostBodyBytes = 2_500_000
const mostPathCharacters = 8000
const headersPatienceMilliseconds = 10_000
const requestPatienceMilliseconds = 60_000
const mostConnections = 2000

/**
 * The server in front of the pages: it bounds what comes in before anything looks at it, says who sent it, and puts the headers of
 * security on every answer, also on those that fail.
 *
 * @param trustedProxies networks as CIDR whose word on sender and protocol is believed
 */
export function front(behind: Behind, trustedProxies: string): Server {
  const trusted = networksOf(trustedProxies)
  const server = createServer(
    {
      maxHeaderSize: 16_384,
      headersTimeout: headersPatienceMilliseconds,
      requestTimeout: requestPatienceMilliseconds,
      keepAliveTimeout: 20_000,
    },
    (request, response) => {
      const peer = peerOf(request, trusted)
      const path = request.url ?? '/'
      const isData = path.startsWith('/api/') || path.startsWith('/_next/') || path === '/api'
      const policy = isData ? policyOfData : policyOfPages(randomBytes(16).toString('base64'))
      for (const [name, value] of Object.entries(always)) response.setHeader(name, value)
      if (peer.isOverTls) for (const [name, value] of Object.entries(overTls)) response.setHeader(name, value)
      response.setHeader('Content-Security-Policy', policy)
      const why = whyNot(request)
      if (why !== undefined) return refuse(response, why)

      for (const name of Object.keys(request.headers)) if (isOurs(name)) delete request.headers[name]
      request.headers['x-wendrel-peer'] = peer.address
      request.headers['x-wendrel-tls'] = peer.isOverTls ? '1' : '0'
      // Next stands behind us and reads from here which nonce its own scripts get.
      request.headers['content-security-policy'] = policy
      compressed(request, response)
      behind(request, response).catch((cause: unknown) => {
        console.error('a request was not answered', cause)
        if (!response.headersSent)
          refuse(response, [500, 'wendrel.unexpected', 'Wendrel met a fault that it did not foresee.'])
        else response.destroy()
      })
    },
  )
  server.maxConnections = mostConnections
  return server
}

/** Names that only we may set, or that would make Next believe what a sender says of itself. */
const isOurs = (name: string) =>
  name.startsWith('x-wendrel-') ||
  name.startsWith('x-forwarded-') ||
  name.startsWith('x-middleware-') ||
  name.startsWith('x-invoke-') ||
  name === 'forwarded' ||
  name === 'x-real-ip' ||
  name.startsWith('content-security-policy')

const filter: compression.CompressionFilter = (_, response) =>
  /^(text\/(?!event-stream)|application\/(json|javascript|x-ndjson)|image\/svg)/.test(
    String(response.getHeader('Content-Type')),
  )
const compress = compression({ filter })
/** Answers of the interface are made for one reader and read once: packing them well would take longer than sending them. */
const compressQuickly = compression({ filter, level: 1 })

/** What is written into the answer from now on goes out as small as who asked can read it; streams of events go out at once. */
const compressed = (request: IncomingMessage, response: ServerResponse): void => {
  const pack = request.url?.startsWith('/api/') === true ? compressQuickly : compress
  pack(request as never, response as never, () => undefined)
}

type Refusal = readonly [status: number, code: string, why: string]

function whyNot(request: IncomingMessage): Refusal | undefined {
  const { method = 'GET', url = '/' } = request
  if (url.length > mostPathCharacters)
    return [414, 'web.address-too-long', 'The address is longer than 8,000 characters.']
  if (!url.startsWith('/')) return [400, 'web.bad-address', 'The address does not begin with a slash.']
  if (!/^(GET|HEAD|POST|PUT|PATCH|DELETE|OPTIONS)$/.test(method))
    return [501, 'web.unknown-method', 'Wendrel does not know this method.']
  try {
    decodeURIComponent(url)
  } catch {
    return [400, 'web.bad-address', 'The address holds a percent sign that stands for nothing.']
  }
  const length = Number(request.headers['content-length'] ?? 0)
  if (!(length <= mostBodyBytes)) return [413, 'web.body-too-large', `A body may have ${mostBodyBytes} bytes at most.`]
  return undefined
}

function refuse(response: ServerResponse, [status, code, why]: Refusal): void {
  const body = JSON.stringify({
    code,
    what: 'The request was not carried out.',
    why,
    remedy: 'The OpenAPI document at /api/v1/openapi.json says what is taken.',
  })
  response.writeHead(status, {
    'Content-Type': 'application/json',
    'Content-Length': Buffer.byteLength(body),
    'Cache-Control': 'no-store',
    Connection: 'close',
  })
  response.end(body)
}
