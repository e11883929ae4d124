import fc from 'fast-check'
import { anyRequest, anyRoot, anyRules } from '../testing/arbitrary'
import {
  editsWords,
  exportTable,
  fileGates,
  mayFile,
  modeLetters,
  newRule,
  readClient,
  rightsMatrix,
  ruleReach,
  ruleTroubles,
  turningChanges,
  type ExportRule,
  type FileRequest,
  type ShareRights,
} from '..'

const rule = (client: string, more: Partial<ExportRule> = {}): ExportRule => ({
  ...newRule,
  client,
  access: 'rw',
  ...more,
})
const request = (more: Partial<FileRequest> = {}): FileRequest => ({
  clientAddress: '10.1.2.3',
  clientName: null,
  uid: 1000,
  gid: 1000,
  groups: [],
  flavour: 'sys',
  operation: 'write',
  ...more,
})
const root = { uid: 1000, gid: 300, mode: '0750' }

test.each([
  ['*', { kind: 'any' }],
  ['10.1.2.3', { kind: 'address', family: 4, length: 32 }],
  ['::ffff:10.1.2.3', { kind: 'address', family: 4, first: 0x0a_01_02_03n }],
  ['10.1.2.0/24', { kind: 'prefix', family: 4, first: 0x0a_01_02_00n, length: 24 }],
  ['FD00:60::/64', { kind: 'prefix', family: 6, length: 64 }],
  ['Scan-1.Example', { kind: 'name', name: 'scan-1.example' }],
])('%s is read as whom a rule is for', (text, read) => expect(readClient(text)).toMatchObject(read))

test.each([
  ['fe80::1%eth0', 'zone'],
  ['10.1.2.3/24', 'the subnet is 10.1.2.0/24'],
  ['10.1.2.0/33', '0 to 32'],
  ['10.1.2.0/x', '0 to 32'],
  ['10.1', 'is no address'],
  ['10.1.2.0/24/2', 'is no subnet'],
  ['', 'is no address'],
  ['bad name', 'is no address'],
  [`${'x'.repeat(64)}.example`, 'is no address'],
])('%s is refused, with the rule', (text, why) =>
  expect(readClient(text)).toEqual({ why: expect.stringContaining(why) as string }),
)

test('what each rule decides is told, with who takes the rest; equals count once', () => {
  const rules = ['10.1.2.3', '10.1.2.0/24', '10.1.0.0/16', '10.1.2.0/24', '*', 'name.example', 'bad%'].map(each =>
    rule(each),
  )
  expect(ruleReach(rules)).toEqual([
    { addresses: 1n, isNeverReached: false, takenBy: [] },
    { addresses: 253n, isNeverReached: false, takenBy: [0] },
    { addresses: 65_536n - 256n - 2n, isNeverReached: false, takenBy: [1] },
    { addresses: 0n, isNeverReached: true, takenBy: [1] },
    { addresses: null, isNeverReached: false, takenBy: [] },
    { addresses: 1n, isNeverReached: false, takenBy: [] },
    { addresses: 0n, isNeverReached: true, takenBy: [] },
  ])
  const halves = ['10.0.0.0/25', '10.0.0.128/25', '10.0.0.0/24'].map(each => rule(each))
  expect(ruleReach(halves)[2]).toEqual({ addresses: 0n, isNeverReached: true, takenBy: [0, 1] })
  expect(ruleReach(['0.0.0.0/0', '::/0', '*'].map(each => rule(each)))[2]?.isNeverReached).toBe(true)
  expect(ruleTroubles(halves)).toEqual([
    { index: 2, level: 'warn', why: 'It is never reached: rules 1, 2 are for all of it, and count first.' },
  ])
  expect(
    ruleTroubles([rule('*'), rule('10.0.0.1', { flavours: [] }), rule('10.0.0.2', { anonUid: -1 })]).map(
      ({ level }) => level,
    ),
  ).toEqual(['warn', 'must', 'must'])
})

test('a mode is shown as its letters, with what is handed on', () => {
  expect((['owner', 'group', 'other'] as const).map(of => modeLetters('2770', of))).toEqual(['rwx', 'rws', '---'])
  expect([modeLetters('4644', 'owner'), modeLetters('1777', 'other')]).toEqual(['rwS', 'rwt'])
})

test('every gate is told in its order, also behind the one that stops', () => {
  const rights: ShareRights = { rules: [rule('10.1.2.0/24', { access: 'ro' })], root }
  const state = { name: 's', addresses: ['10.0.0.9'], freeBytes: 0n }
  expect(fileGates(rights, state, request()).gates.map(({ gate, state: said }) => [gate, said])).toEqual([
    ['service', 'passes'],
    ['export-rule', 'stops'],
    ['authentication', 'would pass'],
    ['mode-bits', 'would pass'],
    ['room', 'would stop'],
  ])
  expect(fileGates(rights, { ...state, addresses: [] }, request({ operation: 'read' }))).toMatchObject({
    allowed: false,
    gates: [{ state: 'stops' }, { state: 'would pass' }, {}, {}],
  })
})

test('the smallest changes come first, say what they do, and name rules as they stand by then', () => {
  const rights: ShareRights = { rules: [rule('10.1.2.0/24', { access: 'ro', squash: 'all' })], root }
  const ways = turningChanges(rights, request())
  expect(ways.map(({ edits, addresses }) => [editsWords(edits, rights.rules), addresses])).toEqual([
    ['Add a rule for 10.1.2.3: rw', 1n],
  ])
  const stranger = turningChanges(rights, request({ uid: 7, gid: 7 }))
  expect(stranger.map(({ edits }) => editsWords(edits, rights.rules))[0]).toBe(
    'Add a rule for 10.1.2.3: rw; set the mode of its root to 0757',
  )
  const member = turningChanges({ rules: [rule('*')], root: { ...root, mode: '0770' } }, request({ uid: 7, gid: 7 }))
  expect(member.map(({ edits }) => edits[0])).toContainEqual({ of: 'member', gid: 300 })
  expect(turningChanges({ rules: [rule('*', { flavours: ['krb5'] })], root }, request())[0]?.edits).toMatchObject([
    { of: 'flavour' },
  ])
})

test('each way that is found turns the answer, and no single edit does where two are said to be needed', () => {
  fc.assert(
    fc.property(anyRules, anyRequest, anyRoot, (all, asked, owner) => {
      const rights = { rules: all, root: owner }
      const before = mayFile(exportTable(all), asked, owner).allowed
      for (const { edits, rights: after } of turningChanges(rights, asked)) {
        const groups = [...asked.groups, ...edits.flatMap(edit => (edit.of === 'member' ? [edit.gid] : []))]
        expect(mayFile(exportTable(after.rules), { ...asked, groups }, after.root).allowed).toBe(!before)
      }
    }),
    { numRuns: 1000 },
  )
})

test('the addresses that rules decide for are those for which they decide', () => {
  const within = fc.constantFrom(
    '10.0.0.0/29',
    '10.0.0.0/30',
    '10.0.0.4/30',
    '10.0.0.2',
    '10.0.0.5/32',
    '10.0.0.6',
    '10.0.0.0/28',
  )
  fc.assert(
    fc.property(fc.array(within, { minLength: 1, maxLength: 5 }), all => {
      const given = all.map(each => rule(each))
      const table = exportTable(given)
      const counts = given.map(() => 0n)
      for (let host = 0; host < 16; host += 1) {
        const { ruleIndex } = mayFile(table, request({ clientAddress: `10.0.0.${host}` }), root)
        if (ruleIndex !== null) counts[ruleIndex] = (counts[ruleIndex] ?? 0n) + 1n
      }
      ruleReach(given).forEach(({ addresses, isNeverReached }, index) => {
        expect(isNeverReached).toBe(counts[index] === 0n)
        // The first and the last address of a subnet are no host's.
        const most = counts[index] ?? 0n
        expect(addresses !== null && addresses <= most && addresses >= most - 2n).toBe(true)
      })
    }),
  )
})

test('a matrix says of each way what somebody may at most', () => {
  const rights: ShareRights[] = [
    { rules: [rule('10.1.2.3'), rule('*', { access: 'ro' })], root: { uid: 1000, gid: 1, mode: '0700' } },
    { rules: [rule('*')], root: { uid: 1000, gid: 1, mode: '0200' } },
  ]
  const hosts = ['10.1.2.3', '10.1.2.4'].map(clientAddress => ({ clientAddress, clientName: null }))
  const cells = rightsMatrix(rights, hosts, { uid: 1000, gid: 1000, groups: [] })
  expect(cells.map(row => row.map(({ right }) => right))).toEqual([
    ['change', 'write only'],
    ['read', 'write only'],
  ])
})
