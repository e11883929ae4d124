import { planNow } from '@/drafting'
import { migrate, openDatabase } from '@/records'
import { latestChanges, leftDraft } from '@/records/changes'
import { driveList, search, volumeList } from '@/records/queries'
import { ensureDatabase } from '../commands/postgres'
import { changes, drives, large, otherDrives, seedEstate, volumes } from './largeEstate'
import { medianMilliseconds, type Figure } from './measure'

/** What the server answers on a large estate: drafts and lists. */
export async function recordsFigures(url: string): Promise<Figure[]> {
  await ensureDatabase(url)
  const database = openDatabase(url)
  const scope = { database }
  await migrate(database, url)
  await seedEstate(database)
  const [found] = await database.query('select id from drives')
  const intent = {
    systemId: large,
    name: 'draft',
    driveIds: (found as { id: string }[]).map(({ id }) => id),
    scheme: { kind: 'parity', parityDrives: 2 },
    maxGroupDrives: 12,
    spareCount: 8,
    snapshotSharePercent: 10,
  }
  const draft = await medianMilliseconds(15, () => planNow(scope, 'create-pool', intent))
  const first = await medianMilliseconds(15, () => volumeList(scope, { limit: 200 }))
  const middle = await medianMilliseconds(9, () =>
    volumeList(scope, { sort: 'written', isDescending: true, offset: volumes / 2, limit: 200 }),
  )
  const filtered = await medianMilliseconds(9, () => volumeList(scope, { filter: '0042', limit: 200 }))
  const drivesFirst = await medianMilliseconds(9, () => driveList(scope, { limit: 200 }))
  const drivesFiltered = await medianMilliseconds(9, () => driveList(scope, { filter: 'A1B', limit: 200 }))
  const rare = await medianMilliseconds(9, () => search(scope, '0042-'))
  const broad = await medianMilliseconds(5, () => search(scope, 'volume'))
  const recent = await medianMilliseconds(9, () => latestChanges(scope, 50))
  const left = await medianMilliseconds(9, () => leftDraft(scope, 'provision-volume', 'operator', ['not-there']))
  const whole = await medianMilliseconds(3, () => database.query('select * from volumes'))
  await database.close()
  return [
    underFigure(`Draft of a pool of ${drives} drives, planned anew at the server`, draft, 50),
    underFigure(`First rows of ${volumes.toLocaleString('en')} volumes at the server`, first, 100),
    underFigure('Rows from the middle, by written bytes', middle, 100),
    underFigure('Rows that a filter leaves', filtered, 150),
    underFigure(`First rows of ${(drives + otherDrives).toLocaleString('en')} drives`, drivesFirst, 100),
    underFigure('Drives that a filter leaves', drivesFiltered, 150),
    underFigure(`Search for what few have, of ${changes.toLocaleString('en')} changes besides`, rare, 50),
    underFigure('Search for what all have', broad, 100),
    underFigure('Latest changes', recent, 20),
    underFigure('Draft that was left, of 2,000', left, 20),
    {
      what: 'First rows beside reading all of them',
      measured: `${(whole / first).toFixed(0)} times as fast`,
      wanted: 'faster',
      holds: first < whole,
    },
  ]
}

const underFigure = (what: string, milliseconds: number, most: number): Figure => ({
  what,
  measured: `${milliseconds < 10 ? milliseconds.toFixed(1) : milliseconds.toFixed(0)} ms`,
  wanted: `under ${most} ms`,
  holds: milliseconds < most,
})
