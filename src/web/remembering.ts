import { LRUCache } from 'lru-cache'
import type { IncomingMessage, ServerResponse } from 'node:http'
import type { Behind } from './front'

const mostAnswers = 80
const mostCharacters = 500_000
/** What changes without a notice, by the time alone, is hardly older than this. */
const leastMilliseconds = 5000
const longestMilliseconds = 30_000
/** Making one answer anew again and again may take this share of a processor at most: on a busy machine it is done less often. */
const mostShare = 1 / 40

/** For how long an answer stands while nothing is told to have changed. @param took to make it (milliseconds) */
export const standsFor = (took: number): number =>
  Math.min(longestMilliseconds, Math.max(leastMilliseconds, took / mostShare))

/** Besides address and reader, what an answer depends on: what Next says of itself, the theme, and the kind that is wanted. */
const dependsOn = [
  'rsc',
  'next-router-state-tree',
  'next-router-prefetch',
  'next-router-segment-prefetch',
  'next-url',
  'accept',
] as const
/** Put on each answer anew, or of the connection on which it was first sent. */
const ofOneAnswer = new Set([
  'content-security-policy',
  'content-length',
  'content-encoding',
  'transfer-encoding',
  'connection',
  'keep-alive',
  'date',
])

interface Kept {
  readonly headers: readonly (readonly [name: string, value: number | string | readonly string[]])[]
  readonly body: string
  /** The word that let its scripts through when it was made. */
  readonly nonce: string
}

/** What the front has to know of the records to answer from memory. */
export interface Knowing {
  /** Who asks, where that is known and still holds; asked for every request. */
  readonly askerOf: (request: IncomingMessage) => Promise<string | undefined>
  /** Whether changes are told now: only then is anything remembered. */
  readonly isTold: () => boolean
  /** Is called back whenever something has changed. */
  readonly onChange: (forget: () => void) => void
}

/**
 * Answers again what was answered before, for as long as nothing in the records has changed: to the same reader only, and with a nonce
 * of its own. Many who ask for the same at once wait for one answer.
 */
export function remembering(behind: Behind, { askerOf, isTold, onChange }: Knowing): Behind {
  const kept = new LRUCache<string, Promise<Kept | undefined>>({
    max: mostAnswers,
    ttl: leastMilliseconds,
    ttlAutopurge: true,
  })
  onChange(() => kept.clear())
  return async (request, response) => {
    const asker = isTold() && isReading(request) ? await askerOf(request).catch(() => undefined) : undefined
    if (asker === undefined) return behind(request, response)
    const key = keyOf(request, asker)
    const known = kept.get(key)
    if (known !== undefined) {
      const answer = await known
      return answer === undefined ? behind(request, response) : send(response, answer, nonceOf(request))
    }
    const captured = captureOf(response, nonceOf(request))
    const began = performance.now()
    const answering = behind(request, response)
    const whole = answering.then(
      () => captured,
      () => undefined,
    )
    // Kept before it is known: what changes meanwhile forgets it. That something is not to be kept is kept too: nobody waits for it again.
    kept.set(key, whole)
    void whole.then(() => {
      if (kept.peek(key) === whole) kept.set(key, whole, { ttl: standsFor(performance.now() - began) })
    })
    return answering
  }
}

/** Pages and what the API reads; neither files, which are no records, nor streams. */
const isReading = ({ method, url = '' }: IncomingMessage) =>
  method === 'GET' && !url.startsWith('/_next/') && !url.startsWith('/api/v1/events') && !/\.[a-z]+(\?|$)/.test(url)

const keyOf = ({ url, headers }: IncomingMessage, asker: string) =>
  JSON.stringify([asker, url, themeOf(headers.cookie), ...dependsOn.map(name => headers[name] ?? '')])

const themeOf = (cookie = '') => /(?:^|;\s*)theme=([a-z]+)/.exec(cookie)?.[1] ?? ''
const nonceOf = ({ headers }: IncomingMessage) =>
  /'nonce-([^']+)'/.exec(String(headers['content-security-policy']))?.[1] ?? ''

function send(response: ServerResponse, { headers, body, nonce }: Kept, ownNonce: string): void {
  const own = (text: string) => (nonce === '' ? text : text.replaceAll(nonce, ownNonce))
  for (const [name, value] of headers)
    response.setHeader(
      name,
      typeof value === 'number' ? value : typeof value === 'string' ? own(value) : value.map(own),
    )
  response.end(own(body))
}

/** What is being answered, once it has been sent; undefined for what is not to be kept: refusals, what sets cookies, what was cut off. */
function captureOf(response: ServerResponse, nonce: string): Promise<Kept | undefined> {
  const parts: Buffer[] = []
  let length = 0
  const take = (part: unknown, encoding: unknown) => {
    if (typeof part !== 'string' && !(part instanceof Uint8Array)) return
    length += part.length
    if (length > mostCharacters) parts.length = 0
    else parts.push(typeof part === 'string' ? Buffer.from(part, encoding as BufferEncoding) : Buffer.from(part))
  }
  const { write, end } = response
  response.write = ((...args: Parameters<typeof write>) => {
    take(args[0], args[1])
    return write.apply(response, args)
  }) as typeof write
  response.end = ((...args: Parameters<typeof end>) => {
    take(args[0], args[1])
    return end.apply(response, args)
  }) as typeof end
  return new Promise(resolve => {
    response.once('close', () => resolve(undefined))
    response.once('finish', () => {
      const type = String(response.getHeader('content-type'))
      const isKept =
        response.statusCode === 200 &&
        length <= mostCharacters &&
        response.getHeader('set-cookie') === undefined &&
        /^(text\/html|text\/x-component|application\/json)/.test(type)
      const headers = Object.entries(response.getHeaders()).flatMap(([name, value]) =>
        value === undefined || ofOneAnswer.has(name) ? [] : [[name, value] as const],
      )
      resolve(isKept ? { headers, body: Buffer.concat(parts).toString(), nonce } : undefined)
    })
  })
}
