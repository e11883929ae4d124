import fc from 'fast-check'
import { arrange, rowFindings, standing, workOrder, type Finding } from '.'
import { compareVersions } from './newerFirmware'
import { found } from './found'
import { emptyEstate, type Estate } from '../estate'
import {
  sampleDrive,
  sampleId,
  sampleNode,
  sampleNodePort,
  samplePool,
  sampleSwitch,
  sampleSwitchPort,
  sampleVolume,
} from '../estate/testing/samples'

const rest = { evidence: 'e', risk: 'r', remedy: 'm', offline: 'o' }
const finding = (key: string, gravity: Finding['gravity'], explainedBy: readonly string[] = []) =>
  found(key, '', gravity, key, { ...rest, explainedBy: explainedBy.map(cause => `${cause}/`) })
const shape = (findings: readonly Finding[]) =>
  JSON.stringify(
    arrange(findings).map(function words(tree): unknown {
      return tree.beneath.length === 0 ? tree.finding.check : [tree.finding.check, ...tree.beneath.map(words)]
    }),
  )

test('what is explained stands beneath its cause', () =>
  expect(
    shape([
      finding('pool', 'now', ['drive']),
      finding('drive', 'now', ['node']),
      finding('node', 'now'),
      finding('clock', 'soon'),
    ]),
  ).toBe('[["node",["drive","pool"]],"clock"]'))

test('a mild cause of something grave comes before what is only soon', () =>
  expect(shape([finding('clock', 'soon'), finding('cable', 'note'), finding('paths', 'now', ['cable'])])).toBe(
    '[["cable","paths"],"clock"]',
  ))

test('a cause that no longer stands explains nothing', () =>
  expect(shape([finding('pool', 'now', ['drive'])])).toBe('["pool"]'))

test('of several causes the gravest is taken', () =>
  expect(shape([finding('x', 'now', ['a', 'b']), finding('a', 'note'), finding('b', 'now')])).toBe('[["b","x"],"a"]'))

test('of equal causes the one that is named first is taken', () =>
  expect(shape([finding('x', 'now', ['b', 'a']), finding('a', 'now'), finding('b', 'now')])).toBe('["a",["b","x"]]'))

test('explanations in a circle are cut at the gravest', () =>
  expect(shape([finding('a', 'soon', ['b']), finding('b', 'now', ['a'])])).toBe('[["b","a"]]'))

test('every finding stands once, and after one of its causes unless it is in a circle', () => {
  const graphs = fc.array(
    fc.record({ gravity: fc.constantFrom('now', 'soon', 'note'), causes: fc.array(fc.nat(11), { maxLength: 3 }) }),
    { maxLength: 12 },
  )
  fc.assert(
    fc.property(graphs, list => {
      // Only earlier ones are named as causes, so that there is no circle.
      const findings = list.map((each, index) =>
        finding(
          `f${index}`,
          each.gravity as Finding['gravity'],
          each.causes.filter(cause => cause < index).map(cause => `f${cause}`),
        ),
      )
      const order = workOrder(arrange(findings)).map(each => each.key)
      expect([...order].sort()).toEqual(findings.map(each => each.key).sort())
      for (const each of findings)
        if (each.explainedBy.length > 0)
          expect(each.explainedBy.some(cause => order.indexOf(cause) < order.indexOf(each.key))).toBe(true)
    }),
  )
})

test('an exception covers a finding until its day, and no longer', () => {
  const exception = {
    id: sampleId(1),
    findingKey: 'clock/',
    gravity: 'soon' as const,
    reason: 'known',
    signedBy: 'k',
    signedAt: '2026-05-01T00:00:00Z',
    until: '2026-06-01T00:00:00Z',
  }
  const at = (day: string) => standing([finding('clock', 'soon')], [exception], new Date(day))[0]?.exception?.reason
  expect([at('2026-05-20T00:00:00Z'), at('2026-06-01T00:00:00Z')]).toEqual(['known', undefined])
  const day = new Date('2026-05-20T00:00:00Z')
  expect(standing([finding('clock', 'now')], [exception], day)[0]?.exception).toBeUndefined()
  expect(standing([finding('clock', 'note')], [exception], day)[0]?.exception).toBe(exception)
})

test.each([
  ['2.10.0', '2.9.9', 1],
  ['2.4', '2.4.0', 0],
  ['1.0-b', '1.0-a', 1],
  ['7.1', '8.0', -1],
])('version %s beside %s', (a, b, sign) => expect(Math.sign(compareVersions(a, b))).toBe(sign))

const system = sampleId(1)
const row = (more: Partial<Estate> = {}): Estate => ({
  ...emptyEstate,
  nodes: [1, 2, 3].map(number => sampleNode(number)),
  nodePorts: [1, 2, 3].map(number => sampleNodePort(number)),
  switches: [sampleSwitch()],
  switchPorts: [1, 2, 3].map(number => sampleSwitchPort(number)),
  ...more,
})
const checks = (estate: Estate) => rowFindings(estate, system).map(each => each.check)

test('a sound row has no findings', () => expect(rowFindings(row(), system)).toEqual([]))

test('a clock six minutes off is found, with the change that sets it', () => {
  const [only] = rowFindings(row({ nodes: [sampleNode(1, { clockOffsetSeconds: -360 }), sampleNode(2)] }), system)
  expect(only).toMatchObject({
    check: 'clock-off',
    title: 'The clock of godwit-1 is 360 s behind',
    draft: { kind: 'set-node-clock' },
  })
  expect(checks(row({ nodes: [sampleNode(1, { clockOffsetSeconds: 4.9 })] }))).toEqual([])
})

test('a small MTU at a switch explains the failing paths, and offers to set it', () => {
  const answers = [1, 2, 3].flatMap(from =>
    [1, 2, 3]
      .filter(to => to !== from)
      .map(to => ({
        fromNodeId: sampleId(from),
        toNodeId: sampleId(to),
        passedMtu: from === 3 || to === 3 ? 1500 : 9000,
        why: null,
      })),
  )
  const estate = row({
    switchPorts: [sampleSwitchPort(1), sampleSwitchPort(2), sampleSwitchPort(3, { mtu: 1500 })],
    pathProbes: [{ systemId: system, at: '2026-05-04T10:00:00Z', wantedMtu: 9000, answers }],
  })
  const [tree] = arrange(rowFindings(estate, system))
  expect(tree?.finding).toMatchObject({
    check: 'mtu',
    title: expect.stringContaining('row switch 1 port 3 has MTU 1500'),
    draft: { kind: 'set-switch-port', intent: { mtu: 9000 } },
  })
  expect(tree?.beneath.map(each => each.finding.title)).toEqual(['4 of 6 paths between nodes do not pass full frames'])
})

test('a failed cache drive explains its hurt pool; a silent node explains both', () => {
  const pool = samplePool({ failureDomain: 'node', state: 'degraded' })
  const cache = sampleDrive(1, { nodeId: sampleId(2), role: 'cache', bank: 1, poolId: pool.id, state: 'failed' })
  const estate = row({ pools: [pool], drives: [cache] })
  expect(
    arrange(rowFindings(estate, system)).map(tree => [
      tree.finding.check,
      tree.beneath.map(each => each.finding.check),
    ]),
  ).toEqual([['cache-lost', ['pool-hurt']]])
  const silent = row({
    pools: [pool],
    drives: [cache],
    nodes: [sampleNode(1), sampleNode(2, { state: 'not answering' })],
  })
  expect(
    arrange(rowFindings(silent, system)).map(tree => [
      tree.finding.check,
      tree.beneath.map(each => each.finding.check),
    ]),
  ).toEqual([['node-silent', ['pool-hurt']]])
})

test('what earlier uses have left is named: what, from where, how old', () => {
  const drive = sampleDrive(4, {
    nodeId: sampleId(1),
    leftOver: { system: 'plover', lastUsedAt: '2023-02-11T00:00:00Z', partitions: ['data, 1.9 TB'] },
  })
  expect(rowFindings(row({ drives: [drive] }), system)[0]).toMatchObject({
    check: 'left-over',
    gravity: 'note',
    evidence: 'data, 1.9 TB; from plover, last used 2023-02-11.',
    draft: { kind: 'erase-drive' },
  })
  expect(checks(row({ drives: [{ ...drive, isBoot: true }] }))).toEqual([])
})

test('unlike firmware, a lease without a reservation, a name that leads elsewhere, and lost bytes are found', () => {
  const storage = {
    family: 'IPv4' as const,
    address: '10.20.30.11',
    prefixLength: 24,
    origin: 'leased' as const,
    isReserved: false,
    vlan: 30,
  }
  const at = '2026-05-04T10:00:00Z'
  const estate = row({
    nodes: [sampleNode(1), sampleNode(2, { firmware: '2.3.0', isRestartServiceOn: false })],
    nodePorts: [sampleNodePort(1, { storage })],
    nameAnswers: [
      { query: 'godwit-1.example', kind: 'forward', answers: ['10.1.1.1'], why: null, at },
      { query: '10.20.30.11', kind: 'reverse', answers: ['godwit-1.example'], why: null, at },
    ],
    volumes: [sampleVolume({ lostBytes: 1024n })],
  })
  expect(checks(estate).sort()).toEqual(['data-lost', 'firmware-differs', 'lease', 'name', 'restart-off'])
})

test('a catalogue names newer firmware for what runs, and is silent about what is current', () => {
  const entry = {
    component: 'node' as const,
    model: 'M-210',
    version: '2.5.0',
    releasedAt: '2026-04-01T00:00:00Z',
    isUrgent: true,
    notes: 'Corrects it.',
  }
  const catalogue = {
    format: 'wendrel-firmware-catalogue-1' as const,
    maker: 'Mirefield',
    issuedAt: '2026-04-02T00:00:00Z',
    entries: [entry, { ...entry, version: '2.4.9' }],
  }
  const [newer] = rowFindings(row({ catalogues: [catalogue] }), system)
  expect(newer).toMatchObject({
    check: 'newer-firmware',
    gravity: 'soon',
    title: 'Firmware 2.5.0 is out for node M-210',
    evidence: expect.stringContaining('3 of 3 run 2.4.1'),
  })
  expect(rowFindings(row({ catalogues: [catalogue], nodes: [sampleNode(1, { firmware: '2.5.0' })] }), system)).toEqual(
    [],
  )
})
