import fc from 'fast-check'
import { initiatorName, readHostLines } from '.'

test.each([
  ['iqn.2026-01.example.host:disk', 'IQN', 'iqn.2026-01.example.host:disk'],
  ['IQN.2026-01.Example.Host:Disk', 'IQN', 'iqn.2026-01.example.host:disk'],
  ['eui.0123456789ABCDEF', 'EUI', 'eui.0123456789abcdef'],
  ['naa.52004567BA64678D', 'NAA', 'naa.52004567ba64678d'],
  ['5001405C0FFEE001', 'WWPN', '50:01:40:5c:0f:fe:e0:01'],
  ['50:01:40:5c:0f:fe:e0:01', 'WWPN', '50:01:40:5c:0f:fe:e0:01'],
  ['0x5001405c0ffee001', 'WWPN', '50:01:40:5c:0f:fe:e0:01'],
  ['nqn.2014-08.example.nvme:uuid:0a1B', 'NQN', 'nqn.2014-08.example.nvme:uuid:0a1B'],
])('%s is read as a name of kind %s, in one spelling', (text, kind, name) => {
  expect(initiatorName(text)).toEqual({ kind, name })
})

test.each([
  ['iqn.2026-13.example:x', 'is no IQN'],
  ['iqn.example:x', 'is no IQN'],
  ['iqn.2026-01.example:with space', 'is no IQN'],
  ['nqn.26-01.example', 'is no NQN'],
  ['eui.0123', '16 hex digits'],
  ['naa.52004567BA64678', '16 or 32'],
  ['0000000000000000', 'names no port'],
  ['50:01:40:5c', 'is no IQN, EUI, NAA name, WWPN or NQN'],
  ['10.0.0.7', 'is no IQN'],
  [`iqn.2026-01.example:${'x'.repeat(240)}`, '223 bytes'],
])('%s is refused, with the rule', (text, why) => {
  expect(initiatorName(text)).toEqual({ why: expect.stringContaining(why) as string })
})

test('whatever spelling a WWPN has, it is one name', () => {
  const hex = fc
    .array(fc.constantFrom(...'0123456789abcdefABCDEF'), { minLength: 16, maxLength: 16 })
    .map(all => all.join(''))
  fc.assert(
    fc.property(hex, digits => {
      fc.pre(!/^(0{16}|f{16})$/i.test(digits))
      const pairs = digits.match(/../g) ?? []
      const read = [digits, pairs.join(':'), pairs.join('-'), `0x${digits.toLowerCase()}`].map(initiatorName)
      for (const each of read) expect(each).toEqual(read[0])
    }),
  )
})

test('lines give hosts, each with its group and all its names; heads and empty lines are passed over', () => {
  const text =
    'name,group,initiators\nscan-1,scanners,iqn.2026-01.example.scan:1;5001405c0ffee001,10.60.46.12\n\ndesk-1,,iqn.2026-01.example.desk:1'
  expect(readHostLines(text)).toEqual({
    hosts: [
      {
        line: 2,
        name: 'scan-1',
        groupName: 'scanners',
        initiators: ['iqn.2026-01.example.scan:1', '50:01:40:5c:0f:fe:e0:01'],
        addresses: ['10.60.46.12'],
      },
      { line: 4, name: 'desk-1', groupName: 'desk-1', initiators: ['iqn.2026-01.example.desk:1'], addresses: [] },
    ],
    troubles: [],
  })
})

test('every line that cannot be read is told with its number and why; the others are read', () => {
  const text = [
    'a,g,iqn.2026-01.example:a',
    'a,g,iqn.2026-01.example:b',
    'b,g,IQN.2026-01.EXAMPLE:A',
    'c,g,wrong',
    'd,g,',
    'bad name,g,iqn.2026-01.example:e',
    'e,g,iqn.2026-01.example:e',
  ].join('\n')
  const { hosts, troubles } = readHostLines(text)
  expect(hosts.map(({ name }) => name)).toEqual(['a', 'e'])
  expect(troubles.map(({ line, why }) => [line, why])).toEqual([
    [2, 'a stands in line 1 already.'],
    [3, 'b: iqn.2026-01.example:a stands in line 1 already.'],
    [4, expect.stringContaining('"wrong" is no IQN')],
    [5, 'd: nothing is said of how it logs in, or at which address it is.'],
    [6, expect.stringContaining('"bad name"')],
  ])
})

test('ten thousand are read, and no more', () => {
  const lines = Array.from({ length: 10_002 }, (_, index) => `h-${index},g,iqn.2026-01.example:${index}`)
  const { hosts, troubles } = readHostLines(lines.join('\n'))
  expect(hosts).toHaveLength(10_000)
  expect(troubles[0]?.why).toContain('More than 10,000')
})

test('eight pairs of digits are a WWPN, though an address could be written so', () => {
  const { hosts } = readHostLines('a,g,50:01:40:5c:0f:fe:e0:02 fd00:60::7')
  expect(hosts).toMatchObject([{ initiators: ['50:01:40:5c:0f:fe:e0:02'], addresses: ['fd00:60::7'] }])
})
