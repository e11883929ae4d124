import { NotReached } from '@/connectors/testing/causes'
import type { StorageSystem } from '@/ports'
import type { World } from '../World'
import { Readings } from './Readings'

/** Systems of which only counts what changes were sent, and the readings that were made of them. */
function estate() {
  const sent = { heron: 0, curlew: 0 }
  const made: string[] = []
  const ways = new Map<string, StorageSystem>()
  const reach = (name: 'heron' | 'curlew') =>
    ways.set(name, { changesSent: () => sent[name] } as unknown as StorageSystem)
  reach('heron')
  reach('curlew')
  const world = { system: (id: string) => Promise.resolve(ways.get(id)) } as unknown as World
  const readings = new Readings(world, async (_, id) => {
    made.push(id)
    await Promise.resolve()
  })
  return { sent, made, reach, readings }
}

test('what a step has read itself is not read again after it; what was changed since is', async () => {
  const { sent, made, readings } = estate()
  await readings.read('heron')
  await readings.readUnlessKnown('heron')
  expect(made).toEqual(['heron'])
  // Another system is known no better for that.
  await readings.readUnlessKnown('curlew')
  sent.heron += 1
  await readings.readUnlessKnown('curlew')
  expect(made).toEqual(['heron', 'curlew'])
  await readings.readUnlessKnown('heron')
  await readings.readUnlessKnown('heron')
  expect(made).toEqual(['heron', 'curlew', 'heron'])
})

test('what hosts, nodes and tasks do may show on any system; another way in knows nothing of the old one', async () => {
  const { made, reach, readings } = estate()
  await readings.read('heron')
  readings.acted()
  await readings.readUnlessKnown('heron')
  reach('heron')
  await readings.readUnlessKnown('heron')
  expect(made).toEqual(['heron', 'heron', 'heron'])
})

test('a change that is sent while the system is read has not been read; nor is a system that did not answer', async () => {
  const { sent, made } = estate()
  const system = { changesSent: () => sent.heron }
  const world = { system: () => Promise.resolve(system) } as unknown as World
  let isSilent = false
  const readings = new Readings(world, (_, id) => {
    made.push(id)
    sent.heron += 1
    return isSilent ? Promise.reject(new NotReached('http://heron', 'Nothing listens.')) : Promise.resolve()
  })
  await readings.read('heron')
  await readings.readUnlessKnown('heron')
  expect(made).toHaveLength(2)
  isSilent = true
  await expect(readings.readUnlessKnown('heron')).rejects.toBeInstanceOf(NotReached)
  await expect(readings.readUnlessKnown('heron')).rejects.toBeInstanceOf(NotReached)
  expect(made).toHaveLength(4)
})
