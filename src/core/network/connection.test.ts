import fc from 'fast-check'
import { connectionHops, isBarredOnTheWay, kindOfAddress, wayOut, type Reached, type WayFound } from '.'

const to: Reached = {
  ...{ name: 'files.hall.example', addresses: ['10.60.2.40', '10.60.2.41'], over: 'NFS', share: 'scans' },
  ...{ isServedSo: true, may: { mount: true, read: true, write: false } },
}
const way = (more: Partial<WayFound> = {}): WayFound => ({
  name: { server: '10.0.0.53:53', domain: null, addresses: ['10.60.2.40'], keptSeconds: 300, milliseconds: 1.5 },
  address: '10.60.2.40',
  route: { source: '10.64.7.33', gateway: '10.64.7.1' },
  ports: [
    { port: 2049, isOpen: true, speaks: 'NFSv4.2', milliseconds: 0.4 },
    { port: 445, isOpen: false, speaks: null, milliseconds: 0.4 },
  ],
  ...more,
})
const outside = way({
  name: { ...way().name, server: '192.0.2.53:53', addresses: ['203.0.113.40'] },
  address: '203.0.113.40',
  ports: [{ port: 2049, isOpen: false, speaks: null, milliseconds: 3000 }],
})
const nowhere = way({ name: { ...way().name, addresses: [] }, address: null, route: null, ports: [] })
const tried = { mount: null, read: null, write: 'read-only file system', milliseconds: 5 }
const states = (hops: ReturnType<typeof connectionHops>) => hops.map(({ hop, state }) => `${hop}: ${state}`)

test('the whole way is told hop by hop, and what is refused is compared with what the rights say', () => {
  const hops = connectionHops(way(), to, tried)
  expect(states(hops).filter(each => !each.endsWith('passes'))).toEqual(['write: stops'])
  expect(hops.at(-1)?.words).toBe('read-only file system, as its rights say')
  expect(hops[0]?.words).toBe('files.hall.example leads to 10.60.2.40, says 10.0.0.53:53; kept 5 min')
  const against = connectionHops(way(), to, { ...tried, write: null })
  expect(against.at(-1)?.words).toContain('though its rights say otherwise')
})

test.each([
  ['a name that leads nowhere', nowhere, 'name'],
  ['a name that leads elsewhere', outside, 'address'],
  ['an address without a route', way({ route: null }), 'route'],
  ['a port that is barred', way({ ports: [] }), 'port'],
  ['another protocol', way({ ports: [{ port: 2049, isOpen: true, speaks: 'HTTP/1.1', milliseconds: 1 }] }), 'protocol'],
])('%s ends the way there, and nothing behind is claimed', (_, found, where) => {
  const hops = connectionHops(found, to, undefined)
  const at = hops.findIndex(({ state }) => state === 'stops')
  expect(hops[at]?.hop).toBe(where)
  expect(hops.slice(at + 1).every(({ state, milliseconds }) => state === 'not tried' && milliseconds === null)).toBe(
    true,
  )
  expect(isBarredOnTheWay(hops)).toBe(where !== 'protocol')
})

test('a share that is not served so is told although its server speaks that', () => {
  const hops = connectionHops(way(), { ...to, isServedSo: false }, tried)
  expect(hops.find(({ state }) => state === 'stops')?.words).toBe('NFSv4.2 is spoken, but scans is not shared so')
})

test('whoever may not read is asked for the write all the same: they are two rights', () => {
  const hops = connectionHops(way(), to, { ...tried, read: 'permission denied', write: null })
  expect(states(hops).slice(-2)).toEqual(['read: stops', 'write: passes'])
})

test('the private path is offered only where it is open, with the forwarder that leads there', () => {
  const open = to.addresses.map((address, index) => ({ address, isOpen: index === 1 }))
  const closed = open.map(each => ({ ...each, isOpen: false }))
  expect(wayOut(outside, to, open, '10.0.0.53:53')).toEqual({
    words:
      'From 10.64.7.33 the private path is open: 10.60.2.41 answers at TCP 2049. Only its name leads elsewhere: ask 10.0.0.53:53 for it, instead of 192.0.2.53:53.',
    forward: { domain: 'files.hall.example', server: '10.0.0.53:53' },
  })
  expect(wayOut(outside, to, closed, '10.0.0.53:53')).toMatchObject({
    words: expect.stringContaining('Have TCP 2049 let through from 10.64.7.33 to 10.60.2.40, 10.60.2.41'),
    forward: null,
  })
  // Who asks the right server already is led elsewhere by its record, which no forwarder mends.
  expect(wayOut(outside, to, open, '192.0.2.53:53').forward).toBeNull()
  expect(wayOut(outside, to, open, '').forward).toBeNull()
  expect(wayOut(way({ ports: [] }), to, open, '10.0.0.53:53').words).toContain('10.60.2.40 does not')
})

test('addresses are private or public by their ranges, and what is none is neither', () => {
  expect(
    ['10.1.2.3', 'fd00::1', '203.0.113.4', '2001:db8::1', '::ffff:10.0.0.1', 'ten', ''].map(kindOfAddress),
  ).toEqual([...['private', 'private', 'public', 'public', 'private', undefined, undefined]])
})

test('whatever a host claims, the hops are eight in their order and at most one of them bars what is behind', () => {
  const text = fc.option(fc.string({ maxLength: 30 }), { nil: null })
  const claimed = fc.record({
    name: fc.record({
      ...{ server: text, domain: text, addresses: fc.array(fc.string({ maxLength: 20 }), { maxLength: 3 }) },
      ...{ keptSeconds: fc.option(fc.nat(), { nil: null }), milliseconds: fc.nat() },
    }),
    address: text,
    route: fc.option(fc.record({ source: fc.string(), gateway: text }), { nil: null }),
    ports: fc.array(
      fc.record({ port: fc.constantFrom(2049, 445, 80), isOpen: fc.boolean(), speaks: text, milliseconds: fc.nat() }),
    ),
  })
  fc.assert(
    fc.property(claimed, fc.boolean(), (found, isTried) => {
      const hops = connectionHops(found, to, isTried ? tried : undefined)
      const at = hops.findIndex(({ state, hop }) => state === 'stops' && hop !== 'read')
      const behind = at < 0 ? [] : hops.slice(at + 1)
      expect(hops).toHaveLength(8)
      expect(behind.every(({ state }) => state === 'not tried')).toBe(true)
      expect(found.address !== null && to.addresses.includes(found.address)).toBe(hops[1]?.state === 'passes')
    }),
  )
})
