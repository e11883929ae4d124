import { planNow } from '@/drafting'
import { latestChanges, leftDraft } from '@/records/changes'
import { driveList, search, volumeList } from '@/records/queries'
import { estateOf, large, whole } from './largeEstate'
import { timed, under, type Figure } from './measure'

/** What the server answers on a large estate: drafts and lists. */
export async function recordsFigures(url: string): Promise<Figure[]> {
  const database = await estateOf(url)
  const scope = { database }
  const { volumes, drives, otherDrives, changes } = whole
  const [found] = await database.query(`select id from drives where system_id = '${large}'`)
  const intent = {
    systemId: large,
    name: 'draft',
    driveIds: (found as { id: string }[]).map(({ id }) => id),
    scheme: { kind: 'parity', parityDrives: 2 },
    maxGroupDrives: 12,
    spareCount: 8,
    snapshotSharePercent: 10,
  }
  const draft = await timed(15, () => planNow(scope, 'create-pool', intent))
  const first = await timed(15, () => volumeList(scope, { limit: 200 }))
  const middle = await timed(9, () =>
    volumeList(scope, { sort: 'written', isDescending: true, offset: volumes / 2, limit: 200 }),
  )
  const filtered = await timed(9, () => volumeList(scope, { filter: '0042', limit: 200 }))
  const drivesFirst = await timed(9, () => driveList(scope, { limit: 200 }))
  const drivesFiltered = await timed(9, () => driveList(scope, { filter: 'A1B', limit: 200 }))
  const rare = await timed(9, () => search(scope, '0042-'))
  const broad = await timed(5, () => search(scope, 'volume'))
  const recent = await timed(9, () => latestChanges(scope, 50))
  const left = await timed(9, () => leftDraft(scope, 'provision-volume', 'operator', ['not-there']))
  const everything = await timed(3, () => database.query('select * from volumes'))
  await database.close()
  return [
    under(`Draft of a pool of ${drives} drives, planned anew at the server`, draft, 50),
    under(`First rows of ${volumes.toLocaleString('en')} volumes at the server`, first, 100),
    under('Rows from the middle, by written bytes', middle, 100),
    under('Rows that a filter leaves', filtered, 150),
    under(`First rows of ${(drives + otherDrives).toLocaleString('en')} drives`, drivesFirst, 100),
    under('Drives that a filter leaves', drivesFiltered, 150),
    under(`Search for what few have, of ${changes.toLocaleString('en')} changes besides`, rare, 50),
    under('Search for what all have', broad, 100),
    under('Latest changes', recent, 20),
    under('Draft that was left, of 2,000', left, 20),
    {
      what: 'First rows beside reading all of them',
      measured: `${(everything.median / first.median).toFixed(0)} times as fast`,
      wanted: 'faster',
      holds: first.best < everything.median,
    },
  ]
}
