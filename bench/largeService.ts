import { createServer } from 'node:http'

/** A storage system of a given number of volumes, as the standard has it: pages of a thousand, links, sign-in. Runs as a process of its own. */
const volumes = Number(process.argv[2])
const pageMembers = 1000
const root = '/redfish/v1'
const link = (path: string) => ({ '@odata.id': `${root}/${path}` })
const pool = {
  ...link('Storage/1/StoragePools/1'),
  Id: '1',
  Name: 'bulk',
  SupportedRAIDTypes: ['RAID6'],
  Capacity: { Data: { AllocatedBytes: 8e15, ConsumedBytes: 1e15 } },
  CapacitySources: [{ ProvidingDrives: { Members: [] } }],
  Status: { State: 'Enabled', Health: 'OK' },
}
const volume = (number: number) => ({
  ...link(`Storage/1/Volumes/${number}`),
  '@odata.type': '#Volume.v1_9_0.Volume',
  Id: `${number}`,
  Name: `volume-${number}`,
  Description: 'A volume of the bench',
  CapacityBytes: (1 + (number % 900)) * 1_073_741_824,
  ProvisioningPolicy: 'Thin',
  Identifiers: [{ DurableNameFormat: 'NAA', DurableName: `6${number.toString(16).padStart(31, '0')}` }],
  Capacity: { Data: { ConsumedBytes: (number % 700) * 1_073_741_824 } },
  CapacitySources: [{ ProvidingPools: { Members: [link('Storage/1/StoragePools/1')] } }],
  Status: { State: 'Enabled', Health: 'OK' },
})
const list = (path: string, members: readonly object[]) => ({
  ...link(path),
  Members: members,
  'Members@odata.count': members.length,
})
const answers = new Map<string, string>(
  Object.entries({
    '': {
      RedfishVersion: '1.15.0',
      UUID: '5f1c0f1e-0000-4000-8000-0000000000aa',
      ProtocolFeaturesSupported: { ExpandQuery: { NoLinks: true }, TopSkipQuery: true },
      Storage: link('Storage'),
      Links: { Sessions: link('SessionService/Sessions') },
    },
    '/Storage': list('Storage', [
      {
        ...link('Storage/1'),
        Name: 'large',
        StoragePools: link('Storage/1/StoragePools'),
        Volumes: link('Storage/1/Volumes'),
      },
    ]),
    '/Storage/1/StoragePools': list('Storage/1/StoragePools', [pool]),
  }).map(([path, body]) => [path, JSON.stringify(body)]),
)
// Whole pages are made before anything is asked, so that the service takes nothing of what is measured.
const pages = Array.from({ length: Math.ceil(volumes / pageMembers) }, (_, page) => {
  const from = page * pageMembers
  const members = Array.from({ length: Math.min(pageMembers, volumes - from) }, (__, index) => volume(from + index + 1))
  return JSON.stringify({ ...link('Storage/1/Volumes'), 'Members@odata.count': volumes, Members: members })
})

createServer((request, response) => {
  const { pathname, searchParams } = new URL(request.url ?? '/', 'http://here.invalid')
  const path = pathname.slice(root.length)
  response.setHeader('Content-Type', 'application/json')
  if (request.method === 'POST') {
    response.writeHead(201, { 'X-Auth-Token': 'bench', Location: `${root}/SessionService/Sessions/1` })
    return response.end('{}')
  }
  const body =
    path === '/Storage/1/Volumes' ? pages[Number(searchParams.get('$skip') ?? 0) / pageMembers] : answers.get(path)
  if (body === undefined) response.statusCode = 404
  return response.end(body ?? '{"error":{"message":"Not here."}}')
}).listen(Number(process.argv[3]), '127.0.0.1')
