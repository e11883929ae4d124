import { createHash, createHmac } from 'node:crypto'
import type { Teller } from '@/ports'
import type { Message } from '@/core/telling'
import { exchange } from '../http'
import { NotTaken } from './errors'
import type { RouteAccess } from './RouteAccess'

const mostAnswerBytes = 64_000
const shownAnswer = 2000

/** What a webhook is sent. `url` is where the page stands that shows it. */
const webhookBody = (message: Message, id: string, ownAddress: string) => ({
  id,
  state: message.state,
  gravity: message.gravity,
  subject: message.subject,
  lines: message.lines,
  key: message.key,
  rule: message.rule,
  url: new URL(message.href, ownAddress).href,
})

/**
 * Signs a request by a shared key. Sources: RFC 9421 (HTTP message signatures, hmac-sha256) over its method, its target and the digest of
 * its content, which is of RFC 9530.
 * @param created seconds since 1970
 */
export function signedHeaders(url: URL, body: string, key: string, created: number): Readonly<Record<string, string>> {
  const digest = `sha-256=:${createHash('sha256').update(body).digest('base64')}:`
  const covered = `("@method" "@target-uri" "content-digest");created=${created};keyid="wendrel";alg="hmac-sha256"`
  const base = [
    '"@method": POST',
    `"@target-uri": ${url.href}`,
    `"content-digest": ${digest}`,
    `"@signature-params": ${covered}`,
  ].join('\n')
  return {
    'Content-Digest': digest,
    'Signature-Input': `told=${covered}`,
    Signature: `told=:${createHmac('sha256', key).update(base).digest('base64')}:`,
  }
}

/** Told by a request over HTTP, signed where the route has a key. */
export function webhook({ address, secret, allowedNetworks, ownAddress, stop }: RouteAccess): Teller {
  return {
    async tell(message, id) {
      const url = new URL(address)
      const content = webhookBody(message, id, ownAddress)
      const body = JSON.stringify(content)
      const created = Math.floor(Date.now() / 1000)
      const headers = secret === undefined ? {} : signedHeaders(url, body, secret, created)
      const answer = await exchange(
        { address, acceptedFingerprint: null, allowedNetworks },
        'POST',
        `${url.pathname}${url.search}`,
        { body: content, headers, stop, mostBytes: mostAnswerBytes },
      )
      const said = `${answer.status} ${answer.text.slice(0, shownAnswer)}`.trim()
      if (answer.status < 200 || answer.status > 299) throw new NotTaken(address, `It answers ${said}.`)
      const head = Object.entries(headers).map(([name, value]) => `${name}: ${value}`)
      return { sent: [`POST ${url.pathname}${url.search}`, ...head, '', body].join('\n'), answer: said }
    },
  }
}
