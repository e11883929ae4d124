import type { ChangePorts, MirrorSeen } from '@/ports'
import { mirror, takeMirrorBack, type MirrorStep } from './mirrors'

const step: MirrorStep = {
  ...{ step: 'mirror', systemId: 'near', toSystemId: 'far', volumeId: 'v', volumeLocator: '/v/1', naa: '6'.repeat(32) },
  ...{ partner: 'FAR-1', ownSerial: 'NEAR-1', poolLocator: '/p/far', name: 'data', ratePercent: 30, fromPoolId: 'p' },
}
const end: MirrorSeen = { role: 'target', state: 'alike', partner: 'NEAR-1', otherLocator: '/v/1' }
const volume = { name: 'data', naa: step.naa, poolLocator: '/p/far', isReady: true }

/** Two systems: what the near one says of its mirror, and what stands at places of the far one. */
function systems(
  said: MirrorSeen | undefined,
  there: Readonly<Record<string, { readonly volume: object; readonly end?: MirrorSeen }>>,
) {
  const kept: Record<string, string> = {}
  const removed: string[] = []
  const ports = {
    keep: async (facts: Readonly<Record<string, string>>) => void Object.assign(kept, facts),
    of: async (systemId: string, name: string) =>
      name === 'mirrors'
        ? {
            of: async (locator: string) => (systemId === 'near' ? said : there[locator]?.end),
            workOn: async () => null,
            follower: async () => Object.keys(there).find(locator => there[locator]?.end?.role === 'target'),
            begin: async () => null,
            part: async () => undefined,
          }
        : {
            at: async (locator: string) => there[locator]?.volume,
            remove: async (locator: string) => void removed.push(locator),
          },
    records: { collect: async () => undefined, gone: async () => undefined },
  } as unknown as ChangePorts
  return { kept, ports, removed }
}
const source = (otherLocator: string | null): MirrorSeen => ({
  ...{ role: 'source', state: 'alike', partner: 'FAR-1', otherLocator },
})

test('both systems must say the same before anything rests on the other end', async () => {
  const { kept, ports } = systems(source('/v/9'), { '/v/9': { volume, end } })
  expect(await mirror(step, {}, ports)).toMatchObject({ toLocator: '/v/9', systemId: 'near', toSystemId: 'far' })
  expect(kept).toEqual({ toLocator: '/v/9' })
})

test.each([
  ['nothing of a mirror is known there', { volume }],
  ['the volume there follows another system', { volume, end: { ...end, partner: 'ELSE-1' } }],
  ['it is a source itself', { volume, end: { ...end, role: 'source' as const } }],
  ['it bears another WWN', { volume: { ...volume, naa: '7'.repeat(32) }, end }],
])(
  'a system that lies about where the other end stands moves nothing, and has nothing removed: %s',
  async (_why, precious) => {
    const { kept, ports, removed } = systems(source('/v/precious'), { '/v/precious': precious })
    await expect(mirror(step, {}, ports)).rejects.toMatchObject({ code: 'change.mirror-failed' })
    expect(kept).toEqual({})
    await takeMirrorBack(step, kept, ports)
    expect(removed).toEqual([])
  },
)

test.each([
  ['its place is not said', source(null), { volume, end }],
  ['it is in another pool', source('/v/9'), { volume: { ...volume, poolLocator: '/p/else' }, end }],
  ['the other does not hold all', source('/v/9'), { volume, end: { ...end, state: 'filling' as const } }],
  ['it is mirrored to somebody else', { ...source('/v/9'), partner: 'ELSE-1' }, { volume, end }],
])('a mirror does not hold where %s', async (_why, said, there) => {
  const { ports } = systems(said, { '/v/9': there })
  await expect(mirror(step, {}, ports)).rejects.toMatchObject({ code: 'change.mirror-failed' })
})

test('what had come over is removed only under the name that it was given, and once it follows nothing', async () => {
  const take = async (there: { readonly volume: object; readonly end?: MirrorSeen }) => {
    const { ports, removed } = systems(undefined, { '/v/9': there })
    await takeMirrorBack(step, { toLocator: '/v/9' }, ports)
    return removed
  }
  expect(await take({ volume })).toEqual(['/v/9'])
  expect(await take({ volume, end: { ...end, state: 'broken' } })).toEqual(['/v/9'])
  expect(await take({ volume, end })).toEqual([])
  expect(await take({ volume: { ...volume, name: 'else' } })).toEqual([])
})

test('an end of which only the other system knows is found by its own word', async () => {
  const left = { volume, end: { ...end, state: 'broken' as const } }
  const take = async (there: { readonly volume: object; readonly end?: MirrorSeen }) => {
    const { ports, removed } = systems(undefined, { '/v/9': there })
    await takeMirrorBack(step, {}, ports)
    return removed
  }
  expect(await take(left)).toEqual(['/v/9'])
  expect(await take({ volume, end })).toEqual([])
  expect(await take({ volume, end: { ...left.end, partner: 'ELSE-1' } })).toEqual([])
  expect(await take({ volume })).toEqual([])
})
