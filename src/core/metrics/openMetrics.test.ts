import { openMetrics } from '.'

test('gauges are written with their unit, labels and time, and end as the text format asks', () =>
  expect(
    openMetrics([
      {
        name: 'wendrel_pool_written_bytes',
        unit: 'bytes',
        help: 'Written.',
        values: [
          { labels: { pool: 'bulk', system: 'heron' }, value: 4096, at: 1_777_852_800_500 },
          { labels: { pool: 'fast' }, value: 0 },
        ],
      },
    ]),
  ).toBe(
    '# TYPE wendrel_pool_written_bytes gauge\n# UNIT wendrel_pool_written_bytes bytes\n# HELP wendrel_pool_written_bytes Written.\n' +
      'wendrel_pool_written_bytes{pool="bulk",system="heron"} 4096 1777852800.5\n' +
      'wendrel_pool_written_bytes{pool="fast"} 0\n# EOF\n',
  ))

test('a name from outside stays one label, whatever stands in it', () => {
  const name = 'a"} 1\nwendrel_fake 2\\'
  const text = openMetrics([
    { name: 'x_bytes', unit: 'bytes', help: 'h', values: [{ labels: { pool: name }, value: 1 }] },
  ])
  expect(text.split('\n')).toHaveLength(6)
  expect(text).toContain('x_bytes{pool="a\\"} 1\\nwendrel_fake 2\\\\"} 1\n')
})
