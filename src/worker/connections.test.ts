import { testConnection } from '@/looking'
import { setSetting } from '@/records'
import { connectionTests } from '@/records/connections'
import { evidenceOf } from '@/records/changes'
import { workbench } from './testing/workbench'

let bench: Awaited<ReturnType<typeof workbench>>
let shareId = ''
const hosts: Partial<Record<string, string>> = {}
const server = 'files.canal.marrowfield.example'
const ownNames = () => `127.0.0.1:${bench.fleet.ports.names}`
const outsideNames = () => `127.0.0.1:${bench.fleet.ports.outsideNames}`

beforeAll(async () => {
  bench = await workbench(36_000)
  const systemId = await bench.registered('bittern')
  await registered('scanner-gate')
  await setSetting({ database: bench.database }, 'name-server', ownNames())
  await done('serve-files', {
    ...{ systemId, name: server, firstAddress: '10.60.2.40/24', nameServers: '', searchSuffixes: '' },
  })
  const { fileServices, pools } = await bench.estate()
  const rule = (client: string, access: string) => ({
    ...{ client, access, squash: 'root', anonUid: 65_534, anonGid: 65_534, flavours: ['sys'] },
  })
  await done('provision-share', {
    ...{ fileServiceId: fileServices[0]?.id, name: 'ct-archive', size: '64 MiB', classId: '', mode: '2770' },
    ...{ poolId: pools.find(({ name }) => name === 'bittern-bulk-01')?.id, ownerUid: 2001, ownerGid: 300 },
    rules: [rule('10.60.46.12', 'rw'), rule('10.64.7.0/24', 'ro')],
  })
  const { shares } = await bench.estate([{ kind: 'shares', field: 'name', values: ['ct-archive'] }])
  shareId = shares[0]?.id ?? ''
  // Had it been there before, the service's own proof would have found that it does not get through.
  await registered('lending-3')
})
afterAll(() => bench.close())

async function registered(name: string): Promise<void> {
  const agentAddress = `http://127.0.0.1:${bench.fleet.ports.hosts[name]}`
  await done('register-host', { agentAddress, groupName: name })
  hosts[name] = (await bench.estate()).hosts.find(each => each.name === name)?.id
}

async function done(kind: string, intent: object) {
  const change = await bench.carriedOut(kind, intent)
  expect([kind, change.state, change.refusal?.why]).toEqual([kind, 'proven', undefined])
  return change
}
const asked = (host: string, more: object = {}) => ({
  ...{ hostId: hosts[host] ?? '', shareId, protocol: 'NFS' as const, personId: '', uid: 2001, gid: 300 },
  ...more,
})
const tested = (host: string, more: object = {}) =>
  testConnection({ database: bench.database }, bench.key, asked(host, more), 'tester', AbortSignal.timeout(20_000))
const passed = ({ hops }: Awaited<ReturnType<typeof tested>>) =>
  hops.flatMap(({ hop, state }) => (state === 'passes' ? [hop] : []))
const control = (kind: string, address: string) =>
  fetch(`http://127.0.0.1:${bench.fleet.ports.control}/faults`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ target: 'bittern', kind, name: '10.64.7.33', address }),
  })
const forward = (server_: string) => ({ hostId: hosts['lending-3'], domain: server, server: server_ })

test('a host with the right names goes the whole way, and leaves nothing behind', async () => {
  const test = await tested('scanner-gate')
  expect(passed(test)).toEqual(['name', 'address', 'route', 'port', 'protocol', 'share', 'read', 'write'])
  expect(test.wayOut).toBeNull()
  expect(test.hops[0]?.words).toContain(`says ${ownNames()}; kept 5 min`)
  const mounted = await fetch(`http://127.0.0.1:${bench.fleet.ports.hosts['scanner-gate']}/agent/shares`)
  expect(await mounted.json()).toEqual({ shares: [] })
  const stranger = await tested('scanner-gate', { uid: 77, gid: 77 })
  expect(stranger.hops.at(-1)?.words).toContain(', as its rights say')
  expect(passed(stranger)).not.toContain('write')
})

test('a host whose names come from outside is led astray; the private path is found, drafted, and leads there', async () => {
  const before = await tested('lending-3')
  expect(passed(before)).toEqual(['name'])
  expect(before.hops[1]?.words).toContain('203.0.113.40, public: not one of')
  expect(before.wayOut?.forward).toEqual({ domain: server, server: ownNames() })
  expect(before.wayOut?.words).toContain(`instead of ${outsideNames()}`)
  const change = await done('forward-names', { hostId: hosts['lending-3'], ...before.wayOut?.forward })
  expect((await evidenceOf({ database: bench.database }, change.id)).map(({ claim }) => claim)).toEqual([
    `lending-3 says whom it asks for ${server}`,
    `lending-3 is led to ${server} by ${ownNames()}, and gets through`,
  ])
  const after = await tested('lending-3')
  expect(passed(after)).toEqual(['name', 'address', 'route', 'port', 'protocol', 'share', 'read'])
  const kept = await connectionTests({ database: bench.database }, hosts['lending-3'] ?? '', shareId)
  expect(kept.map(({ id }) => id)).toEqual([after.id, before.id])
})

test('a port that is barred is told to those who keep the network: no forwarder would help', async () => {
  for (const address of ['10.60.2.40', '10.60.2.41']) await control('way-barred', address)
  const barred = await tested('lending-3')
  expect(passed(barred)).toEqual(['name', 'address', 'route'])
  expect(barred.wayOut).toEqual({
    words:
      'None of its own addresses answers either. Have TCP 2049 let through from 10.64.7.33 to 10.60.2.40, 10.60.2.41.',
    forward: null,
  })
  for (const address of ['10.60.2.40', '10.60.2.41']) await control('way-open', address)
})

test('a forwarder to a server that knows nothing of it is not proven, and what was before stands again by its reverse', async () => {
  const astray = await bench.carriedOut('forward-names', forward(outsideNames()))
  expect(astray.state).toBe('unproven')
  await done('forward-names', forward(''))
  expect(passed(await tested('lending-3'))).toEqual(['name'])
  for (const [more, rule] of [
    [{ domain: 'no domain' }, 'domain'],
    [{ server: 'ns.example' }, 'server'],
    [{ server: '10.0.0.1:99999' }, 'server'],
  ] as const) {
    const { plan } = await bench.drafted('forward-names', { ...forward(ownNames()), ...more })
    expect(plan.checks.filter(({ holds, level }) => !holds && level === 'must').map(each => each.rule)).toEqual([rule])
  }
})

test('what cannot be tried is said before a host is asked', async () => {
  await expect(tested('lending-3', { protocol: 'SMB' })).rejects.toMatchObject({ code: 'looking.nobody' })
  await expect(tested('lending-3', { shareId: hosts['lending-3'] })).rejects.toMatchObject({ code: 'looking.no-share' })
  await expect(tested('nobody', { hostId: shareId })).rejects.toMatchObject({ code: 'looking.no-agent' })
})
