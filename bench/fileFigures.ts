import { signedIn, type Known } from '@/core/access'
import {
  FileReporter,
  FolderSums,
  judgeWrite,
  makeSegment,
  packSegment,
  quotaIndex,
  segmentFiles,
  unpackSegment,
  type FileSegment,
  type Quota,
} from '@/core/filetree'
import { timed, timesOf, under, type Figure } from './measure'

const fileCount = 5_000_000
const directoryCount = 1_000_000
const identityCount = 100_000
const writes = 100_000
const mebibyte = 1024 ** 2

/** Files of a museum: folders of a thousand, sizes and ages of many kinds, two hundred owners. */
function segmentOf(first: number, count: number): FileSegment {
  return makeSegment(
    Array.from({ length: count }, (_, at) => {
      const index = first + at
      return {
        path: `/year-${index % 12}/shelf-${Math.floor(index / 1000)}/specimen-${index}.${index % 3 === 0 ? 'tif' : 'dat'}`,
        uid: 2000 + (index % 200),
        gid: 300,
        bytes: ((index * 2_654_435_761) % 2 ** 32) / (index % 7 === 0 ? 1 : 4096),
        modifiedAt: 1.7e12 - (index % 100_000) * 3_600_000,
        kind: index % 3 === 0 ? ('picture' as const) : undefined,
      }
    }),
  )
}

/** Reports over a large tree, quotas of as many directories as there are, and who somebody is among very many. */
export async function fileFigures(): Promise<Figure[]> {
  const packed: Uint8Array[] = []
  for (let first = 0; first < fileCount; first += segmentFiles)
    packed.push(packSegment(segmentOf(first, Math.min(segmentFiles, fileCount - first))))
  const before = process.memoryUsage()
  let most = 0
  const reported = await timed(1, () => {
    const reporter = new FileReporter(1.71e12)
    for (const each of packed) {
      reporter.add(unpackSegment(each))
      const { heapUsed, arrayBuffers } = process.memoryUsage()
      most = Math.max(most, heapUsed + arrayBuffers - before.heapUsed - before.arrayBuffers)
    }
    return reporter.report()
  })
  const held = packed.reduce((sum, each) => sum + each.byteLength, 0)
  const quota = (path: string): Quota => ({
    ...{ path, of: 'tree', id: null, softBytes: 18n, hardBytes: 20n << 30n, graceDays: 7 },
  })
  const quotas = Array.from({ length: directoryCount }, (_, at) => quota(`/homes/${at % 1000}/${at}`))
  packed.length = 0
  const began = performance.now()
  const index = quotaIndex(quotas)
  const loaded = performance.now() - began
  const used = new Map<string, { bytes: bigint; overSoftSince: null }>()
  const judged = await timed(5, () => {
    for (let at = 0; at < writes; at += 1)
      judgeWrite(index, key => used.get(key), {
        ...{ path: `/homes/${at % 1000}/${at * 7}/notes.txt`, uid: at, gid: 1, addedBytes: 4096n, at: 0 },
      })
  })
  const each = { median: judged.median / writes, best: judged.best / writes }
  const groups = new Map<string, Known>(
    Array.from({ length: 2000 }, (_, at) => [
      `g${at}`,
      { ...known(`g${at}`, at), memberOf: at === 0 ? [] : [`g${Math.floor(at / 2)}`, `g${(at * 7) % 2000}`] },
    ]),
  )
  const people = Array.from({ length: identityCount }, (_, at) => ({
    ...known(`p${at}`, at),
    memberOf: [`g${at % 2000}`, `g${(at * 31) % 2000}`],
  }))
  const counted = await timed(3, () => people.slice(0, 100).map(person => signedIn(person, groups)))
  return [
    under(`A report over ${fileCount.toLocaleString('en')} files`, reported, 20_000),
    {
      what: 'Memory for that report, beside the list itself',
      measured: `${(most / mebibyte).toFixed(0)} MiB (the list: ${(held / mebibyte).toFixed(0)} MiB packed)`,
      wanted: 'under 300 MB',
      holds: most < 300e6,
    },
    under(`${directoryCount.toLocaleString('en')} folders summed up, a walk through`, await foldersSummed(), 4000),
    under(`Quotas of ${directoryCount.toLocaleString('en')} directories read`, timesOf([loaded]), 3000),
    under('One write judged among them', each, 0.05),
    under(
      `Who somebody is among ${identityCount.toLocaleString('en')}, with 2,000 groups in each other`,
      {
        median: counted.median / 100,
        best: counted.best / 100,
      },
      5,
    ),
  ]
}

/** Folders of a thousand folders each, a file in every one, as a walk tells them: what stands in memory is one part of it. */
function foldersSummed() {
  const fileOf = (index: number) => ({
    path: `/shelf-${1000 + Math.floor(index / 1000)}/box-${1000 + (index % 1000)}/list.txt`,
    ...{ uid: 1, gid: 1, bytes: index, modifiedAt: 1.7e12, kind: undefined },
  })
  const parts: Uint8Array[] = []
  for (let first = 0; first < directoryCount; first += segmentFiles) {
    const length = Math.min(segmentFiles, directoryCount - first)
    parts.push(packSegment(makeSegment(Array.from({ length }, (_, at) => fileOf(first + at)))))
  }
  return timed(1, () => {
    const sums = new FolderSums()
    let told = 0
    for (const part of parts) told += sums.add(unpackSegment(part)).length
    if (told + sums.end().length !== directoryCount + 1001) throw new Error('Folders are missing.')
  })
}

const known = (durableId: string, number: number): Known => ({
  ...{ durableId, number, primaryGid: 1, isDisabled: false, memberOf: [] },
})
