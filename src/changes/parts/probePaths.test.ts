import { WendrelError } from '@/core/errors'
import { sampleNode, sampleNodePort } from '@/core/estate/testing/samples'
import type { NodeAgent } from '@/ports'
import { probePaths } from './probePaths'

class Silent extends WendrelError {
  readonly code = 'connection.not-reached'
  constructor() {
    super({ what: 'w', why: 'y', remedy: 'r' })
  }
}
const nodes = [1, 2, 3].map(number => sampleNode(number))
const ports = [1, 2, 3].map(number => sampleNodePort(number, { mtu: number === 3 ? 1500 : 9000 }))
const passing: NodeAgent['probe'] = addresses =>
  Promise.resolve(addresses.map(address => ({ address, passedMtu: 9000 })))
const agentOf = (probe: (address: string) => NodeAgent['probe']) => (address: string) =>
  Promise.resolve({ probe: probe(address), nonZeroBytes: () => Promise.resolve(0) })
const at = new Date('2026-05-04T10:00:00Z')

test('every pair is asked for the largest MTU that any of them has', async () => {
  const probe = await probePaths(
    's',
    nodes,
    ports,
    agentOf(() => passing),
    at,
  )
  expect([probe.wantedMtu, probe.answers.length]).toEqual([9000, 6])
})

test('a node that cannot be asked reaches nobody, and that is the answer', async () => {
  const silent = (address: string) => (address.endsWith('9001') ? () => Promise.reject(new Silent()) : passing)
  const { answers } = await probePaths('s', nodes, ports, agentOf(silent), at)
  expect(answers.filter(each => each.passedMtu === null).map(each => each.why)).toEqual(
    Array(2).fill('godwit-1 does not answer.'),
  )
})

test('a probe that is given up half way is no answer at all', async () => {
  const aborted = agentOf(() => () => Promise.reject(new DOMException('given up', 'AbortError')))
  await expect(probePaths('s', nodes, ports, aborted, at)).rejects.toThrow('given up')
})
