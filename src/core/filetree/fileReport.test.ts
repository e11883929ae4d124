import fc from 'fast-check'
import { ageDays, FileReporter, growthOf, sizeBytes } from './fileReport'
import { readSlice, SliceReader } from './fileSlices'
import { fileKinds } from './fileKinds'
import { comparePaths } from './pathOrder'
import { fileAt, makeSegment, packSegment, unpackSegment, type ListedFile } from './segments'

const now = Date.parse('2026-11-01T00:00:00Z')
const day = 86_400_000
const file = (path: string, bytes: number, more: Partial<ListedFile> = {}): ListedFile => ({
  ...{ path, bytes, uid: 1, gid: 2, modifiedAt: now - day, kind: undefined },
  ...more,
})
function reportOf(...segments: readonly (readonly ListedFile[])[]) {
  const reporter = new FileReporter(now)
  segments.forEach(each => reporter.add(makeSegment(each)))
  return reporter.report()
}

const part = fc.string({ unit: 'grapheme', minLength: 1, maxLength: 12 }).map(text => text.replaceAll('/', '-'))
const anyFile = fc.record({
  path: fc.array(part, { minLength: 1, maxLength: 4 }).map(parts => `/${parts.join('/')}`),
  uid: fc.nat(5),
  gid: fc.nat({ max: 4_294_967_294 }),
  bytes: fc.oneof(fc.nat(5000), fc.nat({ max: 2 ** 30 }), fc.maxSafeNat()),
  modifiedAt: fc.nat(2000).map(days => now - days * day),
  kind: fc.constantFrom(undefined, ...fileKinds),
})
const files = fc.array(anyFile, { maxLength: 40 })

test('what is put side by side, packed and unpacked comes back as it was, names of every plane too', () => {
  fc.assert(
    fc.property(files, all => {
      const packed = packSegment(makeSegment(all))
      // As a database hands it over: anywhere within a larger buffer.
      const moved = new Uint8Array(packed.length + 3)
      moved.set(packed, 3)
      const back = unpackSegment(moved.subarray(3))
      expect(Array.from({ length: back.count }, (_, index) => fileAt(back, index))).toEqual(all)
    }),
  )
})

test('each way to divide files divides all of them: no file is left out, and none is counted twice', () => {
  fc.assert(
    fc.property(files, files, (some, others) => {
      const report = reportOf(some, others)
      const whole = {
        files: some.length + others.length,
        bytes: [...some, ...others].reduce((sum, each) => sum + each.bytes, 0),
      }
      for (const parts of [report.folders, report.owners, report.kinds, report.ages, report.sizes]) {
        expect(parts.reduce((sum, each) => sum + each.files, 0)).toBe(whole.files)
        expect(parts.reduce((sum, each) => sum + each.bytes, 0)).toBeCloseTo(whole.bytes, -3)
      }
      expect(report.files).toBe(whole.files)
    }),
    { numRuns: 60 },
  )
})

test('a slice opens to as many files as the report says that there are, the largest first', () => {
  fc.assert(
    fc.property(files, all => {
      const report = reportOf(all)
      const opened = (text: string) => {
        const reader = new SliceReader(readSlice(text) ?? { of: 'all' }, now, 1000)
        reader.add(makeSegment(all))
        return reader.found()
      }
      for (const [text, sum] of [
        ['all', report],
        ['misnamed', report.misnamed],
        ...report.owners.map(each => [`owner:${each.uid}`, each] as const),
        ...report.folders.map(each => [`folder:${each.path}`, each] as const),
        ...report.kinds.map(each => [`kind:${each.kind ?? 'unknown'}`, each] as const),
        ...report.ages.map((each, band) => [`age:${band}`, each] as const),
        ...report.sizes.map((each, band) => [`size:${band}`, each] as const),
        ...report.sameSize.map(
          each => [`twins:${each.bytes}`, { files: each.files, bytes: each.files * each.bytes }] as const,
        ),
      ] as const) {
        const found = opened(text)
        expect([text, found.files]).toEqual([text, sum.files])
        expect(found.largest.map(({ bytes }) => bytes)).toEqual(
          found.largest.map(({ bytes }) => bytes).sort((a, b) => b - a),
        )
      }
    }),
    { numRuns: 40 },
  )
})

test('largest, oldest, those that lie about their kind, and those of one size are found', () => {
  const report = reportOf(
    [
      file('/a/skull.tif', 3e6, { kind: 'audio', uid: 7 }),
      file('/a/skull.wav', 3e6, { kind: 'audio', modifiedAt: now - 2000 * day }),
      file('/top', 10),
    ],
    [file('/b/scan.tif', 5e6, { kind: 'picture' }), file('/b/no-end', 3e6, { kind: 'audio' })],
  )
  expect(report.largest.map(({ path }) => path)[0]).toBe('/b/scan.tif')
  expect(report.oldest[0]?.path).toBe('/a/skull.wav')
  expect(report.misnamed).toEqual({ files: 1, bytes: 3e6 })
  expect(report.sameSize).toEqual([{ bytes: 3e6, files: 3 }])
  expect(report.folders).toEqual([
    { path: '/b', files: 2, bytes: 8e6 },
    { path: '/a', files: 2, bytes: 6e6 },
    { path: '', files: 1, bytes: 10 },
  ])
})

test('of very many only the foremost are kept, and they are the right ones', () => {
  const many = Array.from({ length: 3000 }, (_, index) => file(`/f/${index}`, (index * 7919) % 3001))
  const { largest } = reportOf(many.slice(0, 1500), many.slice(1500))
  expect(largest.map(({ bytes }) => bytes)).toEqual(
    [...many]
      .map(({ bytes }) => bytes)
      .sort((a, b) => b - a)
      .slice(0, largest.length),
  )
  expect(largest).toHaveLength(50)
})

test('bands begin where they say', () => {
  const aged = (days: number) =>
    reportOf([file('/a', 1, { modifiedAt: now - days * day })]).ages.findIndex(each => each.files > 0)
  expect([aged(0), aged(6.9), aged(7), aged(1095)]).toEqual([0, 0, 1, ageDays.length])
  const sized = (bytes: number) => reportOf([file('/a', bytes)]).sizes.findIndex(each => each.files > 0)
  expect([sized(0), sized(4095), sized(4096), sized(2 ** 50)]).toEqual([0, 0, 1, sizeBytes.length])
})

test.each(['owner:', 'owner:x', 'kind:film', 'age:9', 'size:-1', 'all:1', '', 'twins:1e9', '__proto__:1'])(
  '%s is no part of a report',
  text => expect(readSlice(text)).toBeUndefined(),
)

test('what has grown and shrunk between two walks is told by folder, what has changed most first', () => {
  const before = reportOf([file('/a/1', 100), file('/b/1', 50), file('/c/1', 7)])
  const after = reportOf([file('/a/1', 100), file('/a/2', 20), file('/c/1', 7), file('/d/1', 60)])
  expect(growthOf(before, after)).toEqual([
    { key: '/d', before: { files: 0, bytes: 0 }, after: { files: 1, bytes: 60 } },
    { key: '/b', before: { files: 1, bytes: 50 }, after: { files: 0, bytes: 0 } },
    { key: '/a', before: { files: 1, bytes: 100 }, after: { files: 2, bytes: 120 } },
  ])
  expect(growthOf(before, before)).toEqual([])
})

test('paths stand in the order of their bytes, whatever plane their letters are of', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), fc.string({ unit: 'binary' }), (a, b) => {
      expect(Math.sign(comparePaths(a, b))).toBe(Math.sign(Buffer.compare(Buffer.from(a), Buffer.from(b))))
    }),
  )
})
