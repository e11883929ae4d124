import fc from 'fast-check'
import {
  consecutiveAddresses,
  inOneSubnet,
  namesOfAddresses,
  nameTrouble,
  pathBetween,
  failingPaths,
  pathMatrix,
  readAddress,
  readPath,
  storageShare,
  type Wiring,
} from '.'
import { sampleId, sampleNode, sampleNodePort, sampleSwitch, sampleSwitchPort } from '../estate/testing/samples'

const at = '2026-05-04T10:00:00Z'
const nodes = [1, 2, 3].map(number => sampleNode(number))
const wiring = (more: Partial<Wiring> = {}): Wiring => ({
  ports: [1, 2, 3].map(number => sampleNodePort(number)),
  switches: [sampleSwitch()],
  switchPorts: [1, 2, 3].map(number => sampleSwitchPort(number)),
  nodeName: id => nodes.find(node => node.id === id)?.name ?? '',
  ...more,
})
const through = (own: Wiring, from = 1, to = 2) =>
  pathBetween(own, own.ports[from - 1] ?? sampleNodePort(1), own.ports[to - 1] ?? sampleNodePort(2))

test('a path goes out of the port, through the switch, to the far port', () =>
  expect(through(wiring())?.map(hop => hop.words)).toEqual([
    'godwit-1 port 1',
    'row switch 1 port 1',
    'row switch 1 port 2',
    'godwit-2 port 1',
  ]))

test('a path crosses switches over the cable between them', () => {
  const second = sampleSwitch({ id: sampleId(41), name: 'row switch 2' })
  const own = wiring({
    switches: [sampleSwitch(), second],
    switchPorts: [
      sampleSwitchPort(1),
      sampleSwitchPort(2, { switchId: second.id }),
      sampleSwitchPort(8, { name: 'up', peerPortId: sampleId(79) }),
      sampleSwitchPort(9, { name: 'up', switchId: second.id, peerPortId: sampleId(78) }),
    ],
  })
  expect(through(own)?.map(hop => hop.words)).toEqual([
    'godwit-1 port 1',
    'row switch 1 port 1',
    'row switch 1 port up',
    'row switch 2 port up',
    'row switch 2 port 2',
    'godwit-2 port 1',
  ])
  expect(through({ ...own, switchPorts: own.switchPorts.slice(0, 2) })).toBeUndefined()
})

test.each([
  [
    'jumbo frames at one end only',
    { ports: [sampleNodePort(1), sampleNodePort(2, { mtu: 1500 })] },
    1500,
    'smaller MTU',
    'godwit-2 port 1 has MTU 1500',
  ],
  [
    'a switch port with small frames',
    { switchPorts: [sampleSwitchPort(1, { mtu: 1500 }), sampleSwitchPort(2)] },
    1500,
    'smaller MTU',
    'row switch 1 port 1 has MTU 1500',
  ],
  [
    'a VLAN that the far port does not carry',
    { switchPorts: [sampleSwitchPort(1), sampleSwitchPort(2, { vlans: [1, 20] })] },
    null,
    'wrong VLAN',
    'row switch 1 port 2 does not carry VLAN 30; it carries 1, 20',
  ],
  [
    'a cable that is out',
    { ports: [sampleNodePort(1), sampleNodePort(2, { isUp: false })] },
    null,
    'link down',
    'godwit-2 port 1 is down',
  ],
  ['nothing that is stated', {}, null, 'no answer', 'no port on the way explains it'],
  ['a small MTU that no port states', {}, 1400, 'smaller MTU', 'though every port on the way states 9000 or more'],
] as const)('a probe names the hop: %s', (_, more, passedMtu, verdict, words) => {
  const reading = readPath(through(wiring(more as Partial<Wiring>)), 30, 9000, { passedMtu, why: null })
  expect(reading).toMatchObject({ verdict, words: expect.stringContaining(words) })
  expect(reading.remedy).not.toBe('')
})

test('a path that passes needs no cabling to be known', () =>
  expect(readPath(undefined, 30, 9000, { passedMtu: 9000, why: null })).toMatchObject({
    verdict: 'passes',
    hop: undefined,
  }))

test('the matrix reads every pair, and leaves out nodes whose storage network is not set', () => {
  const own = wiring({
    ports: [sampleNodePort(1), sampleNodePort(2, { mtu: 1500 }), sampleNodePort(3, { storage: null })],
  })
  const pairs = nodes.flatMap(from =>
    nodes.filter(to => to !== from).map(to => ({ fromNodeId: from.id, toNodeId: to.id, passedMtu: 1500, why: null })),
  )
  const cells = pathMatrix(nodes, own, { systemId: sampleId(1), at, wantedMtu: 9000, answers: pairs })
  expect(cells.map(cell => [cell.fromNodeId, cell.toNodeId, cell.hop?.words])).toEqual([
    [nodes[0]?.id, nodes[1]?.id, 'godwit-2 port 1'],
    [nodes[1]?.id, nodes[0]?.id, 'godwit-2 port 1'],
  ])
})

test('what fails among some nodes is what the matrix says of them, whether a probe is whole, lacks pairs or has some twice', () => {
  const ports = [1, 2, 3].map(each => sampleNodePort(each, each === 2 ? { mtu: 1500 } : {}))
  const own = wiring({ ports })
  const all = nodes.flatMap(from => nodes.filter(to => to !== from).map(to => [from.id, to.id] as const))
  fc.assert(
    fc.property(
      fc.subarray(nodes),
      fc.array(fc.record({ pair: fc.constantFrom(...all), mtu: fc.constantFrom(9000, 1500, null) }), { maxLength: 12 }),
      fc.boolean(),
      (some, more, isWhole) => {
        const asked = isWhole ? all.map((pair, index) => ({ pair, mtu: more[index % 5]?.mtu ?? 9000 })) : more
        const answers = asked.map(({ pair: [fromNodeId, toNodeId], mtu }) => ({
          ...{ fromNodeId, toNodeId, passedMtu: mtu, why: null },
        }))
        const probe = { systemId: sampleId(1), at, wantedMtu: 9000, answers }
        const cells = pathMatrix(some, own, probe)
        expect(failingPaths(some, own, probe)).toEqual({
          failing: cells.filter(({ verdict }) => verdict !== 'passes'),
          probed: cells.length,
        })
      },
    ),
  )
})

test.each([
  ['10.20.30.11/24', '10.20.30.11', 24, 'IPv4'],
  [' fd00:0020::0011/64 ', 'fd00:20::11', 64, 'IPv6'],
] as const)('%s is read', (text, address, prefixLength, family) =>
  expect(readAddress(text)).toEqual({ address, prefixLength, family }),
)

test.each(['10.20.30/24', '10.20.30.11', '10.20.30.11/33', 'fd00::1/129', '10.20.30.300/24', '', '/24', 'a/b/c'])(
  '"%s" is no address with a subnet',
  text => expect(readAddress(text)).toBeUndefined(),
)

test('addresses follow each other, also over the end of a byte, and stay inside the subnet', () => {
  expect(consecutiveAddresses({ address: '10.20.30.254', prefixLength: 22, family: 'IPv4' }, 3)).toEqual([
    '10.20.30.254',
    '10.20.30.255',
    '10.20.31.0',
  ])
  expect(consecutiveAddresses({ address: '10.20.30.253', prefixLength: 24, family: 'IPv4' }, 3)).toBeUndefined()
  expect(consecutiveAddresses({ address: '10.20.30.0', prefixLength: 24, family: 'IPv4' }, 1)).toBeUndefined()
  expect(consecutiveAddresses({ address: 'fd00::fffe', prefixLength: 64, family: 'IPv6' }, 3)).toEqual([
    'fd00::fffe',
    'fd00::ffff',
    'fd00::1:0',
  ])
})

test('what follows a first address is always in its subnet', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 254 }), fc.integer({ min: 1, max: 64 }), (last, count) => {
      const first = { address: `10.20.30.${last}`, prefixLength: 23, family: 'IPv4' as const }
      const all = consecutiveAddresses(first, count)
      if (all === undefined) return expect(last + 0 + count).toBeGreaterThan(255)
      expect(new Set(all).size).toBe(count)
      expect(inOneSubnet(all.map(address => ({ ...first, address })))).toBe(true)
    }),
  )
})

test('subnets are compared by network, length and family', () => {
  const a = { address: '10.20.30.11', prefixLength: 24, family: 'IPv4' as const }
  expect(inOneSubnet([a, { ...a, address: '10.20.31.12' }])).toBe(false)
  expect(inOneSubnet([a, { ...a, prefixLength: 23 }])).toBe(false)
  expect(inOneSubnet([a, { address: 'fd00::1', prefixLength: 24, family: 'IPv6' }])).toBe(false)
  expect(inOneSubnet([])).toBe(true)
})

test('a port that storage shares with two others gives it a third when all are busy', () =>
  expect([storageShare([]), storageShare(['hosts', 'management'])]).toEqual([1, 1 / 3]))

const forward = (answers: string[], why: string | null = null) => ({
  query: 'godwit-1.example',
  kind: 'forward' as const,
  answers,
  why,
  at,
})
const reverse = (answers: string[]) => ({ query: '10.20.30.11', kind: 'reverse' as const, answers, why: null, at })
test.each([
  ['they agree', [forward(['10.20.30.11']), reverse(['GODWIT-1.example.'])], undefined],
  ['nobody has asked', [forward(['10.20.30.11'])], null],
  [
    'the name leads elsewhere',
    [forward(['10.9.9.9']), reverse(['godwit-1.example'])],
    'godwit-1.example leads to 10.9.9.9, not to 10.20.30.11.',
  ],
  [
    'the address is called otherwise',
    [forward(['10.20.30.11']), reverse(['old.example'])],
    '10.20.30.11 is called old.example, not godwit-1.example.',
  ],
  ['no reverse record', [forward(['10.20.30.11']), reverse([])], '10.20.30.11 has no name in the reverse zone.'],
  [
    'an unknown name',
    [forward([], 'NXDOMAIN'), reverse([])],
    'godwit-1.example is not known to the name server: NXDOMAIN.',
  ],
] as const)('names and addresses: %s', (_, answers, trouble) =>
  expect(nameTrouble('godwit-1.example', '10.20.30.11', answers)).toBe(trouble),
)

test('an address is called what the name server says that leads back from it, however it is written', () => {
  const answer = (kind: 'forward' | 'reverse', query: string, ...answers: string[]) => ({
    ...{ kind, query, answers, why: null, at },
  })
  const nameOf = namesOfAddresses([
    answer('reverse', '10.0.1.7', 'scan-1.example.'),
    answer('reverse', '10.0.1.8'),
    answer('reverse', 'fd00:0060::7', 'scan-6.example'),
    answer('forward', '10.0.1.9', 'no-name.example'),
  ])
  expect(['10.0.1.7', '10.0.1.8', '10.0.1.9', 'fd00:60::7', '10.0.1.7/24', undefined].map(nameOf)).toEqual([
    ...['scan-1.example', null, null, 'scan-6.example', null, null],
  ])
})
