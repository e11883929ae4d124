import { whyBarred, wrongNetwork } from '.'

test.each([
  '127.0.0.1',
  '127.8.9.1',
  '::1',
  '169.254.169.254',
  'fe80::1',
  '0.0.0.0',
  '::',
  '224.0.0.1',
  'ff02::1',
  '255.255.255.255',
  '::ffff:127.0.0.1',
  '2002:7f00:1::',
  'not an address',
])('%s may not be registered unasked', address => expect(whyBarred(address, '')).toBeDefined())

test.each(['10.1.2.3', '192.168.0.9', '11.0.0.1', 'fd00::9', '2001:4860::1'])('%s may be registered', address =>
  expect(whyBarred(address, '')).toBeUndefined(),
)

test('a network that was let through is, and no other with it', () => {
  expect(whyBarred('127.0.0.1', '10.0.0.0/8, 127.0.0.0/8')).toBeUndefined()
  expect(whyBarred('::1', '127.0.0.0/8')).toBeDefined()
  expect(whyBarred('127.0.0.1', 'nonsense 300.0.0.0/8')).toBeDefined()
  expect([wrongNetwork('10.0.0.0/8 fd00::/8'), wrongNetwork('10.0.0.0/8, 10.0.0.1'), wrongNetwork('')]).toEqual([
    undefined,
    '10.0.0.1',
    undefined,
  ])
})
