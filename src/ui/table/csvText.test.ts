import { csvParseRows } from 'd3-dsv'
import { csvText } from './csvText'

test('fields come back as they went, whatever stands in them', () => {
  const lines = [
    ['name', 'size'],
    ['a "b", c', 'two\r\nlines'],
    ['', '-12.5'],
    ['+3', '−'],
  ]
  expect(csvParseRows(csvText(lines))).toEqual(lines)
  expect(csvText([['a'], ['b']])).toBe('a\r\nb\r\n')
})

test.each(['=HYPERLINK("http://x.example")', '+1+cmd', '-2-3', '@sum(a1)', '\t=1', '\r=1'])(
  'a name that a spreadsheet would carry out is text: %j',
  name => {
    expect(csvParseRows(csvText([[name]]))).toEqual([[`'${name}`]])
  },
)
