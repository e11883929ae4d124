import { randomBytes } from 'node:crypto'
import { keepRound } from '@/records/rounds'
import { sampleClass, sampleFileService, sampleShare } from '@/core/estate/testing/samples'
import { dropClass, keepClass, keepPromiseLooks, nextReading, noteReach, storeInventory } from '@/records/inventory'
import { objects } from '@/records/objects'
import { enrolled, freshDatabase, sampleInventory } from '@/records/testing'
import { LedAway } from '@/ui/testing/navigation'
import { drawn } from './testing/drawn'
import Account from './(signed)/account/page'
import Record from './(signed)/account/record/page'
import Drives from './(signed)/build/drives/page'
import Network from './(signed)/build/network/page'
import Build from './(signed)/build/page'
import Pools from './(signed)/build/pools/page'
import System from './(signed)/build/systems/[id]/page'
import Kind from './(signed)/build/[kind]/page'
import Change from './(signed)/changes/[id]/page'
import Changes from './(signed)/changes/page'
import Today from './(signed)/page'
import Grant from './(signed)/grant/page'
import Connections from './(signed)/grant/connections/page'
import Reviews from './(signed)/grant/reviews/page'
import Provided from './(signed)/provision/[kind]/page'
import ShareAlone from './(signed)/provision/shares/[id]/page'
import Provision from './(signed)/provision/page'
import Board from './(signed)/watch/board/page'
import Health from './(signed)/watch/health/page'
import Watched from './(signed)/watch/[kind]/page'
import Capacity from './(signed)/watch/page'
import Performance from './(signed)/watch/performance/page'
import Report from './(signed)/watch/report/page'
import Telling from './(signed)/watch/telling/page'
import Threads from './(signed)/watch/threads/page'

let database: Awaited<ReturnType<typeof freshDatabase>>['database']
let close: () => Promise<void>
let systemId: string
jest.mock('@/app/server/guard', () => ({
  reader: async () => ({
    who: { id: '00000000-0000-7000-8000-00000000000a', name: 'keeper', by: { id: 'b' } },
    database,
    scope: { database },
  }),
}))

const hostile = '<img src=x onerror=alert(1)>'
beforeAll(async () => {
  const fresh = await freshDatabase()
  database = fresh.database
  close = fresh.close
})
afterAll(() => close())

const lists: [string, unknown, string, object][] = [
  ['Today', Today, '/', {}],
  ['Build', Build, '/build', {}],
  ['Network', Network, '/build/network', {}],
  ['Drives', Drives, '/build/drives', {}],
  ['Pools', Pools, '/build/pools', {}],
  ['Ports', Kind, '/build/ports', { kind: 'ports' }],
  ['Provision', Provision, '/provision', {}],
  ['Consistency groups', Provided, '/provision/consistency-groups', { kind: 'consistency-groups' }],
  ['Hosts', Provided, '/provision/hosts', { kind: 'hosts' }],
  ['Shares', Provided, '/provision/shares', { kind: 'shares' }],
  ['File services', Provided, '/provision/file-services', { kind: 'file-services' }],
  ['Grant', Grant, '/grant', {}],
  ['Reviews of rights', Reviews, '/grant/reviews', {}],
  ['Connection test', Connections, '/grant/connections', {}],
  ['Rules', Watched, '/watch/rules', { kind: 'rules' }],
  ['Routes', Watched, '/watch/routes', { kind: 'routes' }],
  ['Telling', Telling, '/watch/telling', {}],
  ['Board', Board, '/watch/board', {}],
  ['Threads', Threads, '/watch/threads', {}],
  ['Report', Report, '/watch/report', {}],
  ['Capacity', Capacity, '/watch', {}],
  ['Performance', Performance, '/watch/performance', {}],
  ['Health', Health, '/watch/health', {}],
  ['Changes', Changes, '/changes', {}],
  ['Account', Account, '/account', {}],
  ['The record', Record, '/account/record', {}],
]

test.each(lists)('%s of an empty estate says so, and what can be done', async (_, page, address, params) => {
  const { words } = await drawn(page, address, params)
  expect(words).toMatch(/no |nothing|none|empty|not |first/i)
  expect(words).not.toMatch(/undefined|NaN|null|\[object/)
})

describe('with a system whose names are hostile', () => {
  beforeAll(async () => {
    const key = randomBytes(32)
    systemId = (await enrolled({ database }, key, 'heron')).systemId
    const sample = sampleInventory()
    const found = sampleInventory({
      volumes: sample.volumes.map((volume, index) => (index === 0 ? { ...volume, name: hostile } : volume)),
      pools: sample.pools.map(pool => ({ ...pool, name: `${hostile} pool` })),
      accessGroups: [{ name: hostile, initiators: [] }],
      fileUnits: [hostile],
      partners: [hostile],
      fileServices: [{ ...sampleFileService({ name: hostile }), locator: '/f' }],
      shares: [
        { ...sampleShare({ name: hostile, path: `/${hostile}` }), fileServiceLocator: '/f', volumeLocator: '/v/0' },
      ],
    })
    await storeInventory(database, systemId, found, await nextReading({ database }))
  })

  test.each(lists)(
    '%s shows what is there, and marks nothing up that a system has said',
    async (_, page, address, params) => {
      const { html, words } = await drawn(page, address, params)
      expect(html).not.toContain('<img')
      expect(words).not.toMatch(/undefined|NaN|\[object/)
    },
  )

  test('Today counts the systems, and says since the last round what has become otherwise', async () => {
    expect((await drawn(Today, '/')).words).not.toContain('Since the round')
    await keepRound({ database }, 'warden', `Mind ${hostile}.`)
    const { words, html } = await drawn(Today, '/')
    expect(words).toMatch(/One system with one pool holds/)
    expect(words).toMatch(/Since the round of warden/)
    expect(words).toContain('nothing has become otherwise')
    expect(html).not.toContain('<img')
  })

  test('Today shows how promises are kept, of a class whose name is hostile too', async () => {
    expect((await drawn(Today, '/')).words).toContain('Nothing promises how fast it answers.')
    const classId = await keepClass({ database }, sampleClass({ name: hostile }), null, 'a test')
    const counts = { kept: 2, 'at risk': 0, broken: 1, 'not measured': 0 }
    const promises = [{ promise: 'media' as const, promised: 'on SSD', counts }]
    await keepPromiseLooks(database, [{ id: classId, name: '', volumes: 3, promises }], new Date())
    const { words, html } = await drawn(Today, '/')
    expect(words).toMatch(/three volumes in one service class/)
    expect(words).toMatch(/1 broken/)
    expect(html).not.toContain('<img')
    await dropClass({ database }, classId)
  })

  test('a system that does not answer is told on its page and on Today, with its own reason as text', async () => {
    await noteReach({ database }, systemId, { code: 'connection.not-reached', why: `It said ${hostile}.` })
    const today = await drawn(Today, '/')
    expect(today.words).toContain('heron does not answer')
    const page = await drawn(System, `/build/systems/${systemId}`, { id: systemId })
    expect(page.words).toContain('does not answer')
    expect(`${today.html}${page.html}`).not.toContain('<img')
    await noteReach({ database }, systemId, null)
  })

  test('the list of volumes is filtered by the address', async () => {
    // Rows are drawn where the browser has room for them; how many there are is said by the server.
    for (const [filter, said] of [
      ['', '3 in all'],
      ['?filter=b-3', '1 in all'],
      ['?filter=a%252', '1 in all'],
      ['?filter=nobody-has-this', '0 in all'],
      ['?state=holding', '0 in all'],
    ] as const)
      expect([filter, (await drawn(Provision, `/provision${filter}`)).words]).toEqual([
        filter,
        expect.stringContaining(said),
      ])
  })

  test('a share says who may use it, with its rules, its root and how it is mounted', async () => {
    const [share] = await objects({ database }, 'shares')
    const page = await drawn(ShareAlone, `/provision/shares/${share?.id}`, { id: share?.id })
    expect(page.words).toContain('No host that is known may mount it.')
    expect(page.words).toMatch(/10\.0\.1\.0\/24 ro all/)
    expect(page.words).toMatch(/vers=4\.2,sec=sys,hard/)
    expect(page.html).not.toContain('<img')
  })

  test('what is not there leads to a page that says so', async () => {
    const id = '00000000-0000-7000-8000-000000000000'
    await expect(drawn(System, `/build/systems/${id}`, { id })).rejects.toThrow(LedAway)
    await expect(drawn(Change, `/changes/${id}`, { id })).rejects.toThrow(LedAway)
    await expect(drawn(ShareAlone, `/provision/shares/${id}`, { id })).rejects.toThrow(LedAway)
    await expect(drawn(System, '/build/systems/x', { id: 'x' })).rejects.toThrow(LedAway)
    await expect(drawn(Kind, '/build/nothing', { kind: 'nothing' })).rejects.toThrow(LedAway)
  })

  test.each(['sort=nothing', 'descending=maybe', 'sel=x', 'change=not-a-uuid', 'draft=no-such-kind', 'columns=,,'])(
    'an address with %s is answered all the same',
    async query => {
      for (const [, page, address, params] of lists) {
        const { words } = await drawn(page, `${address}?${query}`, params).catch((cause: unknown) => {
          if (cause instanceof LedAway) return { words: '' }
          throw cause
        })
        expect(words).not.toMatch(/undefined|NaN|\[object/)
      }
    },
  )
})
