import type { IncomingMessage, ServerResponse } from 'node:http'
import { drive, link, lying, reach, root, serviceRoot, volume, type Page } from './testing/lyingSystem'

const naa = '60000000000000000000000000000001'
const locator = `${root}/Storage/1/Volumes/1`
const otherwise = (response: ServerResponse) => {
  response.statusCode = 412
  return { error: { message: 'The resource is not what it was when it was read.' } }
}

/** A resource that counts: its tag is another whenever it is read, and it has gone on for some readings before a change comes. */
function counting(found: (reading: number) => object, isLateUntil: number) {
  let reading = 0
  const read: Page = (_, response) => {
    reading += 1
    response.setHeader('ETag', `"${reading}"`)
    return found(reading) as Readonly<Record<string, unknown>>
  }
  const named: (string | undefined)[] = []
  const change = (request: IncomingMessage, response: ServerResponse) => {
    named.push(request.headers['if-match'])
    return reading < isLateUntil ? otherwise(response) : {}
  }
  return { read, change, named }
}

test('what has counted on since it was read is read again, and changed by the tag that it has then', async () => {
  const { read, change, named } = counting(reading => volume(1, { RemainingCapacityPercent: reading }), 3)
  const { address } = await lying({ [`GET ${locator}`]: read, [`PATCH ${locator}`]: change })
  const volumes = await reach(address).of('volumes')
  expect(await volumes.enlarge(locator, naa, 10n ** 13n)).toEqual({ locator, task: null })
  expect(named).toEqual(['"1"', '"2"', '"3"'])
})

test('what is another when it is read again is not changed, though the first was the right one', async () => {
  const at = `${root}/Chassis/1/Drives/1`
  const { read, change, named } = counting(reading => drive(1, { SerialNumber: reading === 1 ? 'RIGHT' : 'OTHER' }), 9)
  const { address } = await lying({ [`GET ${at}`]: read, [`POST ${at}/Actions/Drive.SecureErase`]: change })
  const drives = await reach(address).of('drives')
  await expect(drives.erase(at, 'RIGHT', false)).rejects.toMatchObject({ code: 'system.other-object' })
  expect(named).toEqual(['"1"'])
})

test('what is never as it was read is given up, with what the system says', async () => {
  const { read, change, named } = counting(() => volume(1), 1000)
  const { address } = await lying({ [`GET ${locator}`]: read, [`DELETE ${locator}`]: change })
  const volumes = await reach(address).of('volumes')
  await expect(volumes.remove(locator, naa)).rejects.toMatchObject({ code: 'system.request-refused', status: 412 })
  expect(named).toHaveLength(5)
})

test('a host that somebody adds to a group in the same moment stays in it', async () => {
  const [fabrics, fabric] = [`${root}/Fabrics`, 'Fabrics/SAN']
  const endpoint = (id: string, name: string) => ({
    ...link(`${fabric}/Endpoints/${id}`),
    ...{ Id: id, Name: name, Identifiers: [{ DurableName: name, DurableNameFormat: 'iQN' }] },
  })
  const [ours, theirs, first] = [endpoint('1', 'iqn.ours'), endpoint('2', 'iqn.theirs'), endpoint('3', 'iqn.first')]
  const group = (members: readonly object[]) => ({
    ...link(`${fabric}/EndpointGroups/1`),
    ...{
      Id: '1',
      Name: 'register',
      Endpoints: members.map(each => ({ '@odata.id': (each as typeof ours)['@odata.id'] })),
    },
  })
  // The list still shows the group as it was before they came in.
  const { read, change } = counting(() => group([first, theirs]), 2)
  const list = (path: string, members: readonly object[]) => ({ ...link(path), Members: members })
  const { address, heard } = await lying({
    [`GET ${root}`]: { ...serviceRoot, Fabrics: link('Fabrics') },
    [`GET ${fabrics}`]: list('Fabrics', [
      {
        ...link(fabric),
        ...{ Id: 'SAN', Name: 'SAN', FabricType: 'iSCSI', Endpoints: link(`${fabric}/Endpoints`) },
        ...{ EndpointGroups: link(`${fabric}/EndpointGroups`), Connections: link(`${fabric}/Connections`) },
      },
    ]),
    [`GET ${fabrics}/SAN/Endpoints`]: list(`${fabric}/Endpoints`, [ours, theirs, first]),
    [`GET ${fabrics}/SAN/EndpointGroups`]: list(`${fabric}/EndpointGroups`, [group([first])]),
    [`GET ${fabrics}/SAN/EndpointGroups/1`]: read,
    [`PATCH ${fabrics}/SAN/EndpointGroups/1`]: change,
    // It is mapped already, so that nothing else has to be made.
    [`GET ${fabrics}/SAN/Connections`]: list(`${fabric}/Connections`, [
      {
        ...link(`${fabric}/Connections/1`),
        ...{ Id: '1', Name: '1', VolumeInfo: [{ LUN: 4, Volume: { '@odata.id': locator } }] },
        Links: { InitiatorEndpointGroups: [link(`${fabric}/EndpointGroups/1`)] },
      },
    ]),
  })
  const mappings = await reach(address).of('mappings')
  expect(await mappings.make(locator, 'register', ['iqn.ours'], 'key')).toMatchObject({ lun: 4 })
  const sent = heard.filter(each => each.method === 'PATCH')
  expect(sent).toHaveLength(2)
  const members = (JSON.parse(sent.at(-1)?.body ?? '{}') as { Endpoints: { '@odata.id': string }[] }).Endpoints
  expect(members.map(each => each['@odata.id'].slice(-1)).sort()).toEqual(['1', '2', '3'])
})

test('a system that says where it has made something only by what it has made is understood; one that says nothing is not believed', async () => {
  const made =
    (answer: object): Page =>
    (_, response) => {
      response.statusCode = 201
      return answer as Readonly<Record<string, unknown>>
    }
  const volumes = `${root}/Storage/1/Volumes`
  const asked = { name: 'a', sizeBytes: 10n ** 9n, poolLocator: `${root}/Storage/1/StoragePools/1`, isThin: true }
  const create = async (answer: object) => {
    const { address } = await lying({ [`POST ${volumes}`]: made(answer) })
    return (await reach(address).of('volumes')).create(asked, 'key')
  }
  expect(await create(volume(7))).toEqual({ locator: `${volumes}/7`, task: null })
  expect(await create({})).toEqual({ locator: '', task: null })
  await expect(create({ '@odata.id': 'http://elsewhere.example/redfish/v1/x' })).rejects.toMatchObject({
    code: 'connection.left-origin',
  })
})
