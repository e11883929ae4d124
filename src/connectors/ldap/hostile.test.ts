import { X509Certificate } from 'node:crypto'
import ldap, { type Handler } from 'ldapjs'
import type net from 'node:net'
import tls from 'node:tls'
import { certificate, privateKey } from '../redfish/testing/certificate'
import { directoryReader, identifyDirectory } from '.'

const { fingerprint256: fingerprint, validTo } = new X509Certificate(certificate)
const { signal } = new AbortController()
const closing: (() => Promise<void>)[] = []
afterAll(() => Promise.all(closing.map(close => close())))

/** A server that speaks TLS, and then whatever it likes. */
async function lying(speak: (socket: tls.TLSSocket) => void): Promise<string> {
  const server = tls.createServer({ cert: certificate, key: privateKey }, socket => {
    socket.on('error', () => undefined)
    speak(socket)
  })
  await new Promise<void>(listening => server.listen(0, '127.0.0.1', listening))
  closing.push(() => new Promise(closed => server.close(() => closed())))
  return `ldaps://127.0.0.1:${(server.address() as net.AddressInfo).port}`
}

/** A directory that lets everybody in, and answers a search as it likes. */
async function directoryThat(search: Handler): Promise<string> {
  const server = ldap.createServer({ certificate, key: privateKey })
  server.bind('dc=example', (_request, response) => response.end())
  server.search('dc=example', search)
  await new Promise<void>(listening => server.listen(0, '127.0.0.1', listening))
  closing.push(() => new Promise(closed => server.close(closed)))
  return server.url
}

const reading = (address: string, accepted = fingerprint) =>
  directoryReader(
    { address, fingerprint: accepted, allowedNetworks: '127.0.0.0/8' },
    { name: 'cn=reader,dc=example', password: 'secret' },
    signal,
  ).read('dc=example', async () => undefined)

test.each([
  ['an address that is none', 'ldap://127.0.0.1', 'connection.directory-address'],
  ['a name within the address', 'ldaps://a:b@127.0.0.1', 'connection.directory-address'],
  ['a path', 'ldaps://127.0.0.1/../x', 'connection.directory-address'],
  ['a port where nobody listens', 'ldaps://127.0.0.1:1', 'connection.directory-silent'],
])('%s is refused', async (_, address, code) => {
  await expect(reading(address)).rejects.toMatchObject({ code })
})

test('a network that is barred is not spoken to', async () => {
  await expect(
    identifyDirectory({ address: 'ldaps://127.0.0.1:636', allowedNetworks: '10.0.0.0/8' }, signal),
  ).rejects.toMatchObject({ code: 'connection.address-barred' })
})

test('to another certificate than the accepted one not one byte is sent', async () => {
  let heard = 0
  const address = await lying(socket => socket.on('data', chunk => (heard += chunk.length)))
  await expect(reading(address, 'AA:BB')).rejects.toMatchObject({ code: 'connection.directory-other' })
  expect(heard).toBe(0)
})

test.each([
  ['garbage', (socket: tls.TLSSocket) => socket.once('data', () => socket.end(Buffer.from('HTTP/1.1 200 OK\r\n\r\n')))],
  ['nothing, and ends', (socket: tls.TLSSocket) => socket.once('data', () => socket.end())],
  [
    'a length without a message',
    (socket: tls.TLSSocket) => socket.once('data', () => socket.end(Buffer.from('3084ffffffff02', 'hex'))),
  ],
])('a server that answers %s is told of as one that does not answer', async (_, speak) => {
  const address = await lying(speak)
  await expect(reading(address)).rejects.toMatchObject({ code: 'connection.directory-silent' })
})

test('pages that begin again and again are not followed for ever', async () => {
  let pages = 0
  const address = await directoryThat((_request, response) => {
    pages += 1
    response.send({ dn: 'uid=a,dc=example', attributes: { objectClass: ['person'], cn: ['a'], entryUUID: ['u'] } })
    response.addControl(new ldap.PagedResultsControl({ value: { size: 0, cookie: Buffer.from('more') } }))
    response.end()
  })
  await expect(reading(address)).rejects.toMatchObject({ code: 'connection.directory-unbounded' })
  expect(pages).toBe(2)
})

test('a base that is not there is said so; referrals lead nowhere', async () => {
  const address = await directoryThat((_request, response) => response.end())
  await expect(reading(address)).resolves.toEqual({ principals: [], skipped: [], certificateEndsAt: new Date(validTo) })
  const elsewhere = directoryReader(
    { address, fingerprint, allowedNetworks: '127.0.0.0/8' },
    { name: 'cn=x,dc=example', password: 'y' },
    signal,
  )
  await expect(elsewhere.read('dc=elsewhere', async () => undefined)).rejects.toMatchObject({
    code: 'connection.directory-refused',
  })
})
