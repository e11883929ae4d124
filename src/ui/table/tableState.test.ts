import fc from 'fast-check'
import { between } from './between'
import { csvText } from './csvText'
import { tableState, withTableState } from './tableState'

const columns = [{ id: 'name' }, { id: 'size' }, { id: 'serial', isAtFirstHidden: true }]
const read = (query: string) => tableState(new URLSearchParams(query), columns, 'size')

test('an address that says nothing leaves the table as at first', () => {
  expect(read('')).toEqual({ sort: 'size', isDescending: false, find: '', shown: ['name', 'size'] })
})

test('columns and sorting that do not exist are passed over', () => {
  expect(read('sort=colour&columns=serial,colour,name')).toMatchObject({ sort: 'size', shown: ['name', 'serial'] })
  expect(read('columns=colour').shown).toEqual(['name', 'size'])
})

test('what is written into an address is read back, and all else in it stays', () => {
  const states = fc.record({
    sort: fc.constantFrom('name', 'size', 'serial'),
    isDescending: fc.boolean(),
    find: fc.string({ maxLength: 20 }),
    shown: fc.subarray(['name', 'size', 'serial'], { minLength: 1 }),
  })
  fc.assert(
    fc.property(states, state => {
      const query = withTableState(new URLSearchParams('kind=a%20b&sort=x'), state, columns, 'size')
      expect(query.get('kind')).toBe('a b')
      expect(tableState(new URLSearchParams(query.toString()), columns, 'size')).toEqual(state)
    }),
  )
})

test('what is as at first makes the address no longer', () => {
  expect(withTableState(new URLSearchParams('descending=true&find=a'), read(''), columns, 'size').toString()).toBe('')
})

test('a range goes both ways, and is one row where its other end is gone', () => {
  const ids = ['a', 'b', 'c', 'd']
  expect(between(ids, 'b', 'd')).toEqual(['b', 'c', 'd'])
  expect(between(ids, 'd', 'b')).toEqual(['b', 'c', 'd'])
  expect(between(ids, 'z', 'b')).toEqual(['b'])
  expect(between(ids, undefined, 'b')).toEqual(['b'])
})

test('a comma, a quote and a line break stay one field of the CSV', () => {
  expect(
    csvText([
      ['name', 'place'],
      ['a "b", c', 'bay\r\n1'],
    ]),
  ).toBe('name,place\r\n"a ""b"", c","bay\r\n1"\r\n')
})

test('every text survives the CSV and back', () => {
  const field = /("(?:[^"]|"")*"|[^,\r\n"]*)(,|\r\n)/y
  const readBack = (csv: string): string[][] => {
    const lines: string[][] = [[]]
    for (field.lastIndex = 0; field.lastIndex < csv.length;) {
      const [, text = '', end] = field.exec(csv) ?? []
      lines.at(-1)?.push(text.startsWith('"') ? text.slice(1, -1).replaceAll('""', '"') : text)
      if (end === '\r\n') lines.push([])
    }
    return lines.slice(0, -1)
  }
  const lines = fc.array(fc.array(fc.string(), { minLength: 2, maxLength: 4 }), { minLength: 1, maxLength: 5 })
  fc.assert(fc.property(lines, all => expect(readBack(csvText(all))).toEqual(all)))
})
