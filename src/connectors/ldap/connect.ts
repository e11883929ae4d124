import { Client, ResultCodeError } from 'ldapts'
import net from 'node:net'
import tls from 'node:tls'
import { WendrelError } from '@/core/errors'
import { endOf, openAddress } from '../http'
import { NoDirectoryAddress, DirectorySilent, OtherDirectory, DirectoryRefused, DirectoryUnbounded } from './errors'

/** Where a directory is, and whose certificate is accepted there. */
export interface DirectoryEndpoint {
  readonly address: string
  /** SHA-256 of the certificate that was accepted; null to see who answers, when nothing is told. */
  readonly fingerprint: string | null
  /** Networks as CIDR that may be spoken to although they are barred by themselves, as text. */
  readonly allowedNetworks: string
}

const usualPort = 636
const patienceMilliseconds = 15_000
/** What one reading may bring at most (bytes): a million entries come with less. */
const mostBytes = 1024 ** 3

/** @throws a bad address */
function placeOf(address: string): { readonly host: string; readonly port: number } {
  const [, host = '', port] = /^ldaps:\/\/(\[[0-9a-f:.]+\]|[a-z0-9.-]+)(?::(\d{1,5}))?\/?$/i.exec(address) ?? []
  const number = port === undefined ? usualPort : Number(port)
  if (host === '' || number < 1 || number > 65_535) throw new NoDirectoryAddress(address)
  return { host: host.replace(/^\[|\]$/g, ''), port: number }
}

/** What a directory's refusals mean. Source: RFC 4511, appendix A. */
const refusals: Readonly<Record<number, string>> = {
  4: 'It gives no more entries at once, and takes no request page by page.',
  32: 'Nothing stands at that base.',
  34: 'The name is no distinguished name.',
  48: 'It lets nobody sign in so.',
  49: 'Name or password is wrong.',
  50: 'That account may not read there.',
  53: 'It is not willing to.',
}

/** The library tells of its messages; who reads this wants to know what came of the connection. */
function whySilent(cause: unknown): string {
  const { code, message } = cause as { readonly code?: unknown; readonly message?: string }
  if (typeof code === 'string') return `The connection was not made (${code}).`
  return message?.includes('timeout') === true
    ? 'It did not answer in time.'
    : 'It ended the connection without an answer.'
}

/** What was seen of the other side before it was told anything. */
export interface Seen {
  readonly fingerprint: string
  readonly trouble: string | null
  readonly endsAt: Date | null
}

/**
 * Lets something be asked of a directory whose certificate is the accepted one; another gets no byte of a request. Ends the conversation
 * whatever comes.
 */
export async function conversing<T>(
  { address, fingerprint, allowedNetworks }: DirectoryEndpoint,
  stop: AbortSignal,
  act: (client: Client, seen: () => Seen | undefined) => Promise<T>,
): Promise<T> {
  const { host, port } = placeOf(address)
  const ip = await openAddress(address, host, allowedNetworks)
  const met: Met = {}
  const connect = () => meeting(met, { address, fingerprint, host, ip, port })
  const client = new Client({
    url: `ldaps://${net.isIPv6(ip) ? `[${ip}]` : ip}:${port}`,
    timeout: patienceMilliseconds,
    connectTimeout: patienceMilliseconds,
    createSecureConnection: connect as unknown as typeof tls.connect,
    strictDN: false,
  })
  const end = () => met.socket?.destroy()
  stop.addEventListener('abort', end, { once: true })
  try {
    return await act(client, () => met.seen)
  } catch (cause) {
    throw met.ended ?? whatCame(address, cause)
  } finally {
    stop.removeEventListener('abort', end)
    await client.unbind().catch(() => undefined)
    end()
  }
}

/** Who is on the other side of a connection, and why it was ended. */
interface Met {
  seen?: Seen
  ended?: WendrelError
  socket?: tls.TLSSocket
}

interface Meeting extends Pick<DirectoryEndpoint, 'address' | 'fingerprint'> {
  readonly host: string
  readonly ip: string
  readonly port: number
}

/** A connection that ends itself where another than the accepted one answers, or where it is sent without end. */
function meeting(met: Met, { address, fingerprint, host, ip, port }: Meeting): tls.TLSSocket {
  const open = tls.connect({
    host: ip,
    port,
    servername: net.isIP(host) === 0 ? host : '',
    rejectUnauthorized: false,
  })
  const end = (why: WendrelError) => {
    met.ended = why
    open.destroy(why)
  }
  let bytes = 0
  open.on('data', (chunk: Buffer) => {
    bytes += chunk.length
    if (bytes > mostBytes)
      end(new DirectoryUnbounded(address, 'It sent more than a directory of a million people would.'))
  })
  // Before the client hears of it: on a connection to somebody else nothing is ever sent.
  open.once('secureConnect', () => {
    const trouble: unknown = open.authorizationError
    const shown = open.getPeerCertificate()
    const seen = {
      fingerprint: shown.fingerprint256 ?? '',
      trouble: trouble == null ? null : String(trouble),
      endsAt: endOf(shown),
    }
    met.seen = seen
    if (fingerprint !== null && seen.fingerprint !== fingerprint) end(new OtherDirectory(address))
  })
  met.socket = open
  return open
}

function whatCame(address: string, cause: unknown): WendrelError {
  if (cause instanceof WendrelError) return cause
  return cause instanceof ResultCodeError
    ? new DirectoryRefused(address, refusals[cause.code] ?? `It answered with code ${cause.code}.`)
    : new DirectorySilent(address, whySilent(cause))
}
