import { redfish } from '.'
import { lying, never, passwords, reach, root, serviceRoot, uuid } from './testing/lyingSystem'

const { identify, lookAt } = redfish

test('a password goes only to whom it belongs: the certificate and the UUID are judged before it is sent', async () => {
  const impostor = await lying({}, true)
  await expect(reach(impostor.address).inventory()).rejects.toMatchObject({ code: 'connection.certificate-changed' })
  const wrongPin = { acceptedFingerprint: Array<string>(32).fill('AA').join(':') }
  await expect(reach(impostor.address, wrongPin).inventory()).rejects.toMatchObject({
    code: 'connection.certificate-changed',
  })
  // Not one byte of a request was taken: the connection ended with the handshake.
  expect(impostor.heard).toEqual([])
  const exchanged = await lying({ [`GET ${root}`]: { ...serviceRoot, UUID: 'another' } })
  await expect(reach(exchanged.address).inventory()).rejects.toMatchObject({ code: 'system.other-identity' })
  expect(passwords(exchanged.heard)).toEqual([])
})

test('a first look sends nothing; the second one goes to the same system or nowhere', async () => {
  const { address, heard } = await lying({}, true)
  const seen = await identify({ address }, never)
  expect(seen).toMatchObject({ certificateTrouble: expect.stringContaining('SELF_SIGNED') })
  expect(passwords(heard)).toEqual([])
  const endpoint = { address, acceptedFingerprint: seen.certificateFingerprint }
  const access = { userName: 'admin', password: 'secret' }
  const elsewhere = { ...seen, uuid: 'not this one' }
  await expect(lookAt(endpoint, elsewhere, access, never)).rejects.toMatchObject({ code: 'system.other-identity' })
  expect(passwords(heard)).toEqual([])
  await expect(lookAt(endpoint, seen, access, never)).resolves.toMatchObject({ isEncrypted: true })
})

test('a redirect is not followed, since the token would go with it', async () => {
  const other = await lying({})
  const { address } = await lying({
    [`GET ${root}/Storage`]: (_, response) => {
      response.writeHead(307, { Location: `${other.address}${root}/Storage` }).end()
      return undefined
    },
  })
  await expect(reach(address).inventory()).rejects.toMatchObject({ code: 'connection.redirected' })
  expect(other.heard).toEqual([])
})

test('addresses of this server and of its link are barred unless they are let through, by name as well', async () => {
  const { address } = await lying({})
  await expect(reach(address, { allowedNetworks: '' }).identity()).rejects.toMatchObject({
    code: 'connection.address-barred',
  })
  const byName = address.replace('127.0.0.1', 'localhost')
  await expect(reach(byName, { allowedNetworks: '' }).identity()).rejects.toMatchObject({
    code: 'connection.address-barred',
  })
  await expect(reach('http://[::ffff:127.0.0.1]:9', { allowedNetworks: '' }).identity()).rejects.toMatchObject({
    code: 'connection.address-barred',
  })
  await expect(identify({ address: 'http://169.254.169.254', allowedNetworks: '' }, never)).rejects.toMatchObject({
    code: 'connection.address-barred',
  })
  await expect(reach(address, { allowedNetworks: '127.0.0.0/8' }).identity()).resolves.toMatchObject({ uuid })
})
