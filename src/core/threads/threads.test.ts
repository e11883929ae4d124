import fc from 'fast-check'
import { connected, stops, type Part, type Stop, type Thread } from '.'

const part = (stop: Stop, name: string): Part => ({ key: `${stop}/${name}`, stop, name })
const thread = (names: Partial<Record<Stop, string>>): Thread =>
  Object.fromEntries(
    stops.map(stop => [
      stop,
      (names[stop] ?? '')
        .split(' ')
        .filter(Boolean)
        .map(name => part(stop, name)),
    ]),
  ) as unknown as Thread
const names = (parts: readonly Part[]) => parts.map(({ name }) => name)
const threads = [
  thread({ application: 'register', hosts: 'r1 r2', volume: 'data', pool: 'fast', drives: 'g1 g2' }),
  thread({ application: 'register', hosts: 'r1 r2', volume: 'log', pool: 'fast', drives: 'g1 g2' }),
  thread({ application: 'scans', hosts: 's1', volume: 'raw', pool: 'bulk', drives: 'g3' }),
  thread({ volume: 'unseen', pool: 'bulk', drives: 'g3' }),
]

test('a part carries what stands on it and needs what it stands on, the nearest first', () => {
  const fast = connected(threads, 'pool/fast')
  expect(names(fast.carries)).toEqual(['data', 'log', 'r1', 'r2', 'register'])
  expect(names(fast.needs)).toEqual(['g1', 'g2'])
  expect(names(connected(threads, 'hosts/r1').needs)).toEqual(['data', 'log', 'fast', 'g1', 'g2'])
  expect(names(connected(threads, 'drives/g3').carries)).toEqual(['bulk', 'raw', 'unseen', 's1', 'scans'])
  expect(connected(threads, 'pool/gone')).toEqual({ carries: [], needs: [], keys: new Set() })
})

test('whatever carries something is needed by it, and the other way round', () => {
  const name = fc.constantFrom('a', 'b', 'c', 'd')
  const some = fc.array(name, { maxLength: 3 }).map(all => [...new Set(all)].join(' '))
  const any = fc.record({ application: some, hosts: some, volume: name, pool: name, drives: some }).map(thread)
  fc.assert(
    fc.property(fc.array(any, { minLength: 1, maxLength: 8 }), all => {
      const keys = new Set(all.flatMap(each => stops.flatMap(stop => each[stop].map(({ key }) => key))))
      for (const key of keys)
        for (const carried of connected(all, key).carries)
          expect(connected(all, carried.key).needs.map(each => each.key)).toContain(key)
    }),
  )
})
