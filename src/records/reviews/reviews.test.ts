import { v7 as uuid } from 'uuid'
import { sampleShare, sampleFileService } from '@/core/estate/testing/samples'
import { reviewLines } from '@/core/access'
import { randomBytes } from 'node:crypto'
import { run } from '../database'
import { nextReading, storeInventory } from '../inventory'
import { objects } from '../objects'
import { enrolled, freshDatabase, sampleInventory } from '../testing'
import { keepReview, reviewList, reviewPage, reviewsOf } from '.'

let records: Awaited<ReturnType<typeof freshDatabase>>
let shareId = ''
const scope = () => ({ database: records.database })

beforeAll(async () => {
  records = await freshDatabase()
  const { systemId } = await enrolled(scope(), randomBytes(32), 'heron')
  await storeInventory(
    records.database,
    systemId,
    sampleInventory({
      fileUnits: ['A'],
      partners: [],
      fileServices: [{ ...sampleFileService(), locator: '/f' }],
      shares: [
        {
          ...sampleShare({
            grants: [
              { who: 'g-all', name: 'all', right: 'read' },
              { who: 'u-1', name: 'One', right: 'change' },
              { who: '*', name: '', right: 'none' },
            ],
          }),
          ...{ fileServiceLocator: '/f', volumeLocator: '/v/0' },
        },
      ],
    }),
    await nextReading(scope()),
  )
  shareId = (await objects(scope(), 'shares'))[0]?.id ?? ''
  const directory = uuid()
  await run(
    scope(),
    `insert into directories (id, name, address, fingerprint, base_dn, read_as, made_by_step) values ($1, 'd', 'a', 'f', 'b', 'r', 'k')`,
    [directory],
  )
  const principal = (durableId: string, sort: string, memberOf: readonly string[], isDisabled = false) =>
    run(
      scope(),
      `insert into principals (id, directory_id, durable_id, sort, account, name, dn, member_of, is_disabled)
       values ($1, $2, $3::text, $4, $3::text, $3::text, $3::text, $5::jsonb, $6)`,
      [uuid(), directory, durableId, sort, JSON.stringify(memberOf), isDisabled],
    )
  // Groups that contain each other: a ring.
  await principal('g-all', 'group', ['g-part'])
  await principal('g-part', 'group', ['g-all'])
  await principal('u-1', 'person', ['g-part'])
  await principal('u-2', 'person', ['g-all', 'g-part'])
  await principal('u-gone', 'person', ['g-part'], true)
  await principal('u-alone', 'person', [])
})
afterAll(() => records.close())

const verdicts = async (goes: readonly string[] = []) => {
  const [share] = await objects(scope(), 'shares')
  const lines = share === undefined ? [] : reviewLines(share)
  return Object.fromEntries(lines.map(({ key }) => [key, goes.includes(key) ? ('goes' as const) : ('stays' as const)]))
}
const keep = (given: Awaited<ReturnType<typeof verdicts>>, note = '') =>
  keepReview(scope(), { shareId, madeBy: 'keeper', note, verdicts: given })

test('who is behind a grant is found through groups within groups, each once, without those who cannot sign in', async () => {
  const page = await reviewPage(scope(), shareId)
  const found = [...(page?.behind ?? [])].sort((a, b) => a.who.localeCompare(b.who))
  expect(found).toEqual([
    { who: '*', people: 3, names: ['u-1', 'u-2', 'u-alone'] },
    { who: 'g-all', people: 2, names: ['u-1', 'u-2'] },
    { who: 'u-1', people: 1, names: ['u-1'] },
  ])
  expect(await reviewPage(scope(), uuid())).toBeUndefined()
})

test('a review is kept with every right and its verdict; the latest stands in the list', async () => {
  expect((await reviewList(scope())).shares.map(({ latest }) => latest)).toEqual([null])
  const first = await keep(await verdicts(), 'All is well.')
  const second = await keep(await verdicts(['grant change u-1']))
  expect((await reviewsOf(scope(), shareId)).map(({ id }) => id)).toEqual([second?.id, first?.id])
  const [line] = (await reviewList(scope())).shares
  expect(line?.latest).toMatchObject({ madeBy: 'keeper', note: '', shareId })
  expect(line?.latest?.lines.filter(({ verdict }) => verdict === 'goes').map(({ words }) => words)).toEqual([
    'One may read and write',
  ])
})

test('what is decided is what was seen: a right that came or went meanwhile keeps nothing', async () => {
  const before = (await reviewsOf(scope(), shareId)).length
  const all = await verdicts()
  const [one = '', ...rest] = Object.keys(all)
  const less = Object.fromEntries(rest.map(key => [key, 'stays' as const]))
  for (const given of [
    less,
    { ...less, 'grant full nobody': 'stays' as const },
    { ...all, [`${one}x`]: 'stays' as const },
  ])
    await expect(keep(given)).rejects.toMatchObject({ code: 'review.share-changed' })
  expect(await reviewsOf(scope(), shareId)).toHaveLength(before)
  expect(await keepReview(scope(), { shareId: uuid(), madeBy: 'k', note: '', verdicts: {} })).toBeUndefined()
})
