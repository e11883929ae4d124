import { changeSummaries } from '@/records/changes'
import { driveList, search, volumeList } from '@/records/queries'
import { estateOf, whole, type Size } from './largeEstate'
import { timed } from './measure'

const parts = [100, 10, 1] as const

/** What is asked of every page, at a hundredth, a tenth and the whole of the estate: a table of milliseconds. */
export async function growth(url: string): Promise<string[]> {
  const taken = new Map<string, number[]>()
  for (const part of parts) {
    const size = Object.fromEntries(
      Object.entries(whole).map(([name, count]) => [name, Math.round(count / part)]),
    ) as unknown as Size
    const database = await estateOf(part === 1 ? url : `${url}_${part}`, size)
    const scope = { database }
    const asked: Readonly<Record<string, () => Promise<unknown>>> = {
      'First rows of volumes': () => volumeList(scope, { limit: 200 }),
      'Rows from the middle, by written bytes': () =>
        volumeList(scope, { sort: 'written', offset: size.volumes / 2, limit: 200 }),
      'Volumes that a filter leaves': () => volumeList(scope, { filter: '0042', limit: 200 }),
      'First rows of drives': () => driveList(scope, { limit: 200 }),
      'Search for what few have': () => search(scope, '0042-'),
      'First page of changes': () => changeSummaries(scope, 60),
    }
    for (const [what, work] of Object.entries(asked)) {
      await work()
      taken.set(what, [...(taken.get(what) ?? []), (await timed(9, work)).median])
    }
    await database.close()
  }
  return [
    '## Growth',
    '',
    `Medians in milliseconds, by how much of the estate there is (${whole.volumes.toLocaleString('en')} volumes, ${(whole.drives + whole.otherDrives).toLocaleString('en')} drives, ${whole.changes.toLocaleString('en')} changes); the last column is how many times as long it takes at a hundred times the size.`,
    '',
    '| what | 1% | 10% | 100% | times |',
    '|---|---|---|---|---|',
    ...[...taken].map(
      ([what, all]) =>
        `| ${what} | ${all.map(each => each.toFixed(1)).join(' | ')} | ${((all[2] ?? 0) / (all[0] ?? 1)).toFixed(1)} |`,
    ),
    '',
  ]
}
