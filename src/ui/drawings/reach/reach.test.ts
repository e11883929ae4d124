import fc from 'fast-check'
import { newRule } from '@/core/access'
import { reachAxis } from '.'

const rules = (...clients: readonly string[]) => clients.map(client => ({ ...newRule, client }))

test('blocks stand in the order of their addresses, with what lies within them to scale', () => {
  const { blocks, bars } = reachAxis(rules('10.0.1.128', '10.0.1.0/24', '10.0.9.0/24', '*', 'name.example'))
  expect(blocks.map(({ words }) => words)).toEqual(['10.0.1.0/24', '10.0.9.0/24'])
  const [host, subnet, other, any] = bars
  expect(host?.from).toBeCloseTo(((subnet?.from ?? 0) + (subnet?.to ?? 0)) / 2, 6)
  expect((subnet?.to ?? 1) < (other?.from ?? 0)).toBe(true)
  expect(any?.to).toBe(1)
  expect(bars).toHaveLength(4)
})

test('whatever the rules are, no bar leaves the axis, and none is turned', () => {
  const clients = fc.constantFrom(
    '*',
    'x',
    '10.0.0.1',
    '10.0.0.0/8',
    '10.0.0.0/30',
    'fd00::/8',
    'fd00::1',
    '::/0',
    '0.0.0.0/0',
    '%',
  )
  fc.assert(
    fc.property(fc.array(clients, { maxLength: 8 }), all => {
      for (const { from, to } of reachAxis(rules(...all)).bars) {
        expect(from).toBeGreaterThanOrEqual(0)
        expect(to).toBeLessThanOrEqual(1 + 1e-9)
        expect(to).toBeGreaterThanOrEqual(from)
      }
    }),
  )
})
