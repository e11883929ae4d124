import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import { createServer as createTlsServer } from 'node:https'
import { redfish } from '..'
import { certificate, privateKey } from './certificate'

const { reach: redfishSystem } = redfish

export const never = new AbortController().signal
export const uuid = '5f1c0f1e-0000-4000-8000-000000000001'
export const root = '/redfish/v1'
export type Body = Readonly<Record<string, unknown>>
export type Page = Body | ((request: IncomingMessage, response: ServerResponse) => Body | undefined)

export interface Heard {
  readonly method: string
  readonly url: string
  readonly token: string | undefined
  readonly body: string
}

/** A system that answers as it likes; @returns where, and what it has heard */
export async function lying(pages: Readonly<Record<string, Page>>, isEncrypted = false) {
  const heard: Heard[] = []
  const all: Readonly<Record<string, Page>> = { ...honest, ...pages }
  const answer = (request: IncomingMessage, response: ServerResponse) => {
    let body = ''
    request.on('data', part => (body += String(part)))
    request.on('end', () => {
      const { method = '', url = '' } = request
      heard.push({ method, url, token: request.headers['x-auth-token']?.toString(), body })
      const page = all[`${method} ${url}`] ?? all[`${method} ${url.split('?')[0]}`]
      const found = typeof page === 'function' ? page(request, response) : page
      if (response.writableEnded || response.headersSent) return
      response.setHeader('Content-Type', 'application/json')
      if (found === undefined) response.statusCode = 404
      response.end(JSON.stringify(found ?? { error: { message: 'Not here.' } }))
    })
  }
  const server: Server = isEncrypted
    ? createTlsServer({ cert: certificate, key: privateKey }, answer)
    : createServer(answer)
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  servers.push(server)
  const { port } = server.address() as { port: number }
  return { address: `${isEncrypted ? 'https' : 'http'}://127.0.0.1:${port}`, heard }
}
const servers: Server[] = []
afterEach(() => {
  for (const server of servers.splice(0)) {
    server.closeAllConnections()
    server.close()
  }
})

export const link = (path: string) => ({ '@odata.id': `${root}/${path}` })
export const collection = (path: string, members: readonly Body[]): Body => ({ ...link(path), Members: members })
export const drive = (number: number, more: Body = {}): Body => ({
  ...link(`Chassis/1/Drives/${number}`),
  Id: `${number}`,
  Name: `Drive ${number}`,
  MediaType: 'SSD',
  CapacityBytes: 10 ** 12,
  SerialNumber: `SN${number}`,
  Status: { Health: 'OK' },
  ...more,
})
export const pool: Body = {
  ...link('Storage/1/StoragePools/1'),
  Id: '1',
  Name: 'bulk',
  SupportedRAIDTypes: ['RAID6'],
  Capacity: { Data: { AllocatedBytes: 10 ** 12 } },
  CapacitySources: [{ ProvidingDrives: { Members: [link('Chassis/1/Drives/1')] } }],
  Status: { State: 'Enabled', Health: 'OK' },
}
export const volume = (number: number, more: Body = {}): Body => ({
  ...link(`Storage/1/Volumes/${number}`),
  Id: `${number}`,
  Name: `volume-${number}`,
  CapacityBytes: 10 ** 9,
  Identifiers: [{ DurableName: `6000000000000000000000000000000${number}`, DurableNameFormat: 'NAA' }],
  CapacitySources: [{ ProvidingPools: { Members: [link('Storage/1/StoragePools/1')] } }],
  ...more,
})
export const serviceRoot: Body = {
  ...link(''),
  RedfishVersion: '1.19.0',
  UUID: uuid,
  Vendor: 'Ferrow',
  Product: 'Mire',
  Storage: link('Storage'),
  Chassis: link('Chassis'),
}
export const storage: Body = {
  ...link('Storage/1'),
  Name: 'storage',
  StoragePools: link('Storage/1/StoragePools'),
  Volumes: link('Storage/1/Volumes'),
}
const letIn: Page = (_, response) => {
  response.setHeader('X-Auth-Token', 'a token')
  response.setHeader('Location', `${root}/SessionService/Sessions/1`)
  return {}
}
/** A small system that tells the truth and cannot expand; each test puts a lie into it. */
const honest: Readonly<Record<string, Page>> = {
  [`GET ${root}`]: serviceRoot,
  [`POST ${root}/SessionService/Sessions`]: letIn,
  [`GET ${root}/Storage`]: collection('Storage', [link('Storage/1')]),
  [`GET ${root}/Storage/1`]: storage,
  [`GET ${root}/Chassis`]: collection('Chassis', [link('Chassis/1')]),
  [`GET ${root}/Chassis/1`]: { ...link('Chassis/1'), Name: 'Enclosure', Drives: link('Chassis/1/Drives') },
  [`GET ${root}/Chassis/1/Drives`]: collection('Chassis/1/Drives', [link('Chassis/1/Drives/1')]),
  [`GET ${root}/Chassis/1/Drives/1`]: drive(1),
  [`GET ${root}/Storage/1/StoragePools`]: collection('Storage/1/StoragePools', [link('Storage/1/StoragePools/1')]),
  [`GET ${root}/Storage/1/StoragePools/1`]: pool,
  [`GET ${root}/Storage/1/Volumes`]: collection('Storage/1/Volumes', [link('Storage/1/Volumes/1')]),
  [`GET ${root}/Storage/1/Volumes/1`]: volume(1),
}
export const reach = (address: string, more: { acceptedFingerprint?: string; allowedNetworks?: string } = {}) =>
  redfishSystem({ address, acceptedFingerprint: null, uuid, ...more }, { userName: 'admin', password: 'secret' }, never)
export const passwords = (heard: readonly Heard[]) => heard.filter(each => each.body.includes('secret'))
