import dgram from 'node:dgram'
import net from 'node:net'
import { syslogLine } from '@/core/telling'
import type { Teller } from '@/ports'
import { NotTaken } from './errors'
import type { RouteAccess } from './RouteAccess'
import { hostOf, ownName, socketTo } from './socketTo'

const usualPort = 514
const usualTlsPort = 6514

/** Told to a syslog server: by datagram (RFC 5426), or over TCP or TLS with the length before each (RFC 6587, RFC 5425). */
export function syslog(access: RouteAccess): Teller {
  const { protocol } = new URL(access.address)
  return {
    async tell(message, id) {
      const line = syslogLine(message, ownName(), new Date(), id)
      const data = Buffer.from(line, 'utf8')
      try {
        if (protocol === 'udp:') await byDatagram(access, data)
        else await byStream(access, Buffer.concat([Buffer.from(`${data.length} `), data]), protocol === 'tls:')
      } catch (cause) {
        if (cause instanceof Error && 'code' in cause && String(cause.code).startsWith('connection.')) throw cause
        throw new NotTaken(access.address, cause instanceof Error ? cause.message : String(cause), { cause })
      }
      return { sent: line, answer: protocol === 'udp:' ? 'Datagrams are not answered.' : 'The connection took it.' }
    },
  }
}

async function byDatagram(access: RouteAccess, data: Buffer): Promise<void> {
  const { ip, port } = await hostOf(access, usualPort)
  const socket = dgram.createSocket(net.isIPv6(ip) ? 'udp6' : 'udp4')
  try {
    await new Promise<void>((resolve, reject) => {
      socket.once('error', reject)
      socket.send(data, port, ip, cause => (cause === null ? resolve() : reject(cause)))
    })
  } finally {
    socket.close()
  }
}

async function byStream(access: RouteAccess, data: Buffer, isEncrypted: boolean): Promise<void> {
  const socket = await socketTo(access, isEncrypted ? usualTlsPort : usualPort, isEncrypted)
  await new Promise<void>((resolve, reject) => {
    socket.once('error', reject)
    socket.once('close', () => resolve())
    socket.end(data)
    // What the receiver says is of no meaning to syslog; read, so that the end is seen.
    socket.resume()
  })
}
