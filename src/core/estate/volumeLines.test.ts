import fc from 'fast-check'
import { mostVolumes, readVolumeLines } from '.'

const gibibyte = 1024n ** 3n
const whys = (text: string) => readVolumeLines(text).troubles.map(({ line, why }) => `${line}: ${why}`)

test('a line names a volume and its size; a range stands for many, and heads are passed over', () => {
  expect(readVolumeLines('name,size\r\ncatalogue-data-01, 3 GiB\n\n"catalogue-log-01","512 MiB"\n').volumes).toEqual([
    { name: 'catalogue-data-01', sizeBytes: 3n * gibibyte },
    { name: 'catalogue-log-01', sizeBytes: gibibyte / 2n },
  ])
  const desks = readVolumeLines('desk-{08..12}-a, 80 GiB')
  expect(desks.volumes.map(({ name }) => name)).toEqual([
    'desk-08-a',
    'desk-09-a',
    'desk-10-a',
    'desk-11-a',
    'desk-12-a',
  ])
  expect(desks.troubles).toEqual([])
})

test.each([
  ['a, 4', '1: 4 of what?'],
  ['a 4 GiB', '1: Give a size with its unit'],
  ['-a, 4 GiB', '1: "-a": A name has 1 to 63'],
  ['../a, 4 GiB', '1: "../a": A name has'],
  ['a, 4 GiB\nb, 1 GiB\na, 2 GiB', '3: a stands in line 1 already.'],
  ['a-{9..3}, 1 GiB', '1: {9..3} counts backwards.'],
  ['a-{1..999999}, 1 GiB', '1: {1..999999} stands for 999,999 volumes'],
  ['a-{1..600}, 1 GiB\nb-{1..600}, 1 GiB', '2: More than 1000 volumes'],
  ['a-{1..3}-{1..2}, 1 GiB', '1: "a-1-{1..2}": A name has'],
  [', 4 GiB', '1: "": Give the volume a name.'],
])('%s is told of: %s', (text, why) => expect(whys(text)[0]).toContain(why))

test('whatever is written, no name comes twice, none more than the most, and nothing breaks', () => {
  fc.assert(
    fc.property(
      fc.string({ maxLength: 400 }),
      fc.array(fc.constantFrom('a-{1..30}, 1 GiB', 'a-07, 1 GiB', ',', '"')),
      (text, more) => {
        const { volumes } = readVolumeLines([text, ...more].join('\n'))
        expect(new Set(volumes.map(({ name }) => name)).size).toBe(volumes.length)
        expect(volumes.length).toBeLessThanOrEqual(mostVolumes)
      },
    ),
  )
})
