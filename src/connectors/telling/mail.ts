import { createTransport } from 'nodemailer'
import net from 'node:net'
import type { Message } from '@/core/telling'
import type { Teller } from '@/ports'
import { NotTaken } from './errors'
import type { RouteAccess } from './RouteAccess'
import { hostOf, ownName } from './socketTo'

const usualPort = 25
const usualTlsPort = 465
const patienceMilliseconds = 15_000
const shownBytes = 20_000

/** A word that is safe in a header's identifier. */
const word = (text: string) => Buffer.from(text).toString('base64url').slice(0, 60)

/** What is mailed: text only, a line each. What ends a matter answers what began it, so that both stand together. */
const mailOf = (message: Message, id: string, { sender, recipients, ownAddress }: RouteAccess) => ({
  from: sender ?? '',
  to: [...recipients],
  subject: message.subject,
  text: [...message.lines, '', new URL(message.href, ownAddress).href, `By the rule: ${message.rule}`].join('\n'),
  messageId: `<${id}@wendrel.invalid>`,
  ...(message.state === 'begun' || message.state === 'ended'
    ? { references: `<matter.${word(message.key)}@wendrel.invalid>` }
    : {}),
  headers: { 'Auto-Submitted': 'auto-generated' },
})

/** Told by mail, over SMTP: by TLS from the first byte (smtps), or as soon as the server offers it. */
export function mail(access: RouteAccess): Teller {
  const { address, secret, userName } = access
  const isEncrypted = new URL(address).protocol === 'smtps:'
  return {
    async tell(message, id) {
      const { host, ip, port } = await hostOf(access, isEncrypted ? usualTlsPort : usualPort)
      const transport = createTransport({
        host: ip,
        port,
        secure: isEncrypted,
        name: ownName(),
        tls: { servername: net.isIP(host) === 0 ? host : '' },
        // A password never goes in the clear.
        requireTLS: !isEncrypted && userName !== null,
        connectionTimeout: patienceMilliseconds,
        greetingTimeout: patienceMilliseconds,
        socketTimeout: patienceMilliseconds,
        disableFileAccess: true,
        disableUrlAccess: true,
        ...(userName === null ? {} : { auth: { user: userName, pass: secret ?? '' } }),
      })
      const content = mailOf(message, id, access)
      try {
        const answer = await transport.sendMail(content)
        return { sent: shownMail(content), answer: answer.response }
      } catch (cause) {
        throw new NotTaken(address, cause instanceof Error ? cause.message.slice(0, 500) : String(cause), { cause })
      } finally {
        transport.close()
      }
    },
  }
}

const shownMail = ({ from, to, subject, text, messageId }: ReturnType<typeof mailOf>) =>
  [`From: ${from}`, `To: ${to.join(', ')}`, `Subject: ${subject}`, `Message-ID: ${messageId}`, '', text]
    .join('\n')
    .slice(0, shownBytes)
