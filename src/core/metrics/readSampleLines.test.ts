import fc from 'fast-check'
import { sampleId } from '../estate/testing/samples'
import { metricNames, readSampleLines } from '.'

const id = sampleId(7)
const at = '2026-05-04T10:00:00Z'
const good = { objectId: id, metric: 'written', at: Date.parse(at), value: 12.5 }

test('CSV is read by the names of its columns, in whatever order, with others passed over', () => {
  const text = `\uFEFFvalue, At ,note,metric,object\n12.5,${at},"a, b",written,${id}\n\n12.5,2026-05-04T12:00:00+02:00,,written,${id}\n`
  expect(readSampleLines(text, 'CSV')).toEqual({
    samples: [
      { line: 2, ...good },
      { line: 4, ...good },
    ],
    refused: [],
  })
})

test('JSON lines are read one by one', () => {
  const text = [JSON.stringify({ object: id, metric: 'written', at, value: 12.5 }), '', 'nothing', '[1]'].join('\n')
  expect(readSampleLines(text, 'JSON lines')).toEqual({
    samples: [{ line: 1, ...good }],
    refused: [
      { line: 3, why: 'It is no JSON object.' },
      { line: 4, why: 'It is no JSON object.' },
    ],
  })
})

test.each([
  ['no columns', '1,2,3,4', 'The first line names no object, metric, at, value.'],
  ['a name for an id', `object,metric,at,value\nmain,written,${at},1`, 'no id'],
  ['a metric that is none', `object,metric,at,value\n${id},colour,${at},1`, 'none of written'],
  ['a time without its zone', `object,metric,at,value\n${id},written,2026-05-04T10:00:00,1`, 'with its zone'],
  ['a day that is none', `object,metric,at,value\n${id},written,2026-02-30T10:00:00Z,1`, 'with its zone'],
  ['no value', `object,metric,at,value\n${id},written,${at},`, 'not a number'],
  ['a word for a value', `object,metric,at,value\n${id},written,${at},many`, 'not a number'],
  ['hostile words', `object,metric,at,value\n'; drop table volumes; --,written,${at},1`, 'no id'],
])('%s is refused with its line', (_, text, why) => {
  const { samples, refused } = readSampleLines(text, 'CSV')
  expect(samples).toEqual([])
  expect(refused[0]?.why).toContain(why)
})

test('what is written out comes back, in both formats', () => {
  const sample = fc.record({
    object: fc.constant(id),
    metric: fc.constantFrom(...metricNames),
    at: fc.date({ min: new Date(0), max: new Date('2100-01-01'), noInvalidDate: true }).map(each => each.toISOString()),
    value: fc.double({ noNaN: true, noDefaultInfinity: true }).map(each => each + 0),
  })
  fc.assert(
    fc.property(fc.array(sample, { maxLength: 20 }), samples => {
      const csv = ['object,metric,at,value', ...samples.map(each => Object.values(each).join(','))].join('\n')
      const lines = samples.map(each => JSON.stringify(each)).join('\n')
      for (const read of [readSampleLines(csv, 'CSV'), readSampleLines(lines, 'JSON lines')]) {
        expect(read.refused).toEqual([])
        expect(read.samples.map(({ at: each, value }) => [each, value])).toEqual(
          samples.map(each => [Date.parse(each.at), each.value]),
        )
      }
    }),
  )
})
