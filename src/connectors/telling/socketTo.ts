import net from 'node:net'
import { hostname } from 'node:os'
import tls from 'node:tls'
import { openAddress } from '../http'
import type { RouteAccess } from './RouteAccess'

const patienceMilliseconds = 10_000

/** The host and the port of an address. @throws {AddressBarred} where nothing may be sent there */
export async function hostOf({ address, allowedNetworks }: RouteAccess, usualPort: number) {
  const { hostname: host, port } = new URL(address)
  const bare = host.replace(/^\[|\]$/g, '')
  return {
    host: bare,
    ip: await openAddress(address, bare, allowedNetworks),
    port: port === '' ? usualPort : Number(port),
  }
}

/** A connection to a receiver whose address may be spoken to; over TLS its certificate must be good for its name. */
export async function socketTo(access: RouteAccess, usualPort: number, isEncrypted: boolean): Promise<net.Socket> {
  const { host, ip, port } = await hostOf(access, usualPort)
  return new Promise((resolve, reject) => {
    const socket = isEncrypted
      ? tls.connect({ host: ip, port, servername: net.isIP(host) === 0 ? host : '' })
      : net.connect({ host: ip, port })
    const end = (cause: Error) => {
      socket.destroy()
      reject(cause)
    }
    socket.setTimeout(patienceMilliseconds, () => end(new Error('It did not answer in time.')))
    socket.once('error', end)
    socket.once(isEncrypted ? 'secureConnect' : 'connect', () => {
      socket.removeListener('error', end)
      resolve(socket)
    })
  })
}

/** As this machine is called in what it sends. */
export const ownName = (): string => hostname()
