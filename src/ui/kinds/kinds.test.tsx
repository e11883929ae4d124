/** @jest-environment jsdom */
import { screen, within } from '@testing-library/react'
import { kindOf, objectKinds } from '@/core/estate'
import { sampleDrive, sampleId } from '@/core/estate/testing/samples'
import { ServerLists } from '../table/ServerLists'
import { giveSizes, shown, wordsOf } from '../testing/browser'
import { KindTable, ObjectFacts } from '.'
import { textOf } from './textOf'

beforeAll(() => giveSizes())
const system = { field: 'systemId', kind: kindOf('systems'), id: sampleId(1), name: 'heron' }

test('a kind that says how its list looks has a table of it, and what is not stated says so', () => {
  const port = {
    id: 'p1',
    systemId: sampleId(1),
    name: 'port <b>1</b>',
    speedBitsPerSecond: 25e9,
    isUp: false,
    address: null,
    targetName: 'iqn.2020-01.example:heron',
    revision: 1,
  }
  shown(
    <ServerLists>
      <KindTable
        name="ports"
        path="/ports"
        question=""
        first={{ total: 1, items: [port], names: { [sampleId(1)]: 'heron' } }}
        selected="p1"
      />
    </ServerLists>,
  )
  const heads = screen.getAllByRole('columnheader').map(each => each.textContent)
  expect(heads).toEqual(objectKinds.ports.list?.columns.filter(each => each.isFolded !== true).map(each => each.words))
  const sorted = screen.getAllByRole('columnheader').filter(each => each.getAttribute('aria-sort') === 'ascending')
  expect(sorted.map(each => each.textContent)).toEqual(['Port'])
  const row = screen.getByRole('row', { name: /25 Gb\/s/ })
  expect(within(row).getAllByRole('cell').map(wordsOf)).toEqual([
    'port <b>1</b>',
    'heron',
    'not stated',
    '[soon] down',
    '25 Gb/s',
    'not stated',
    'iqn.2020-01.example:heron',
  ])
})

test('one object shows all that is known of it, and leads to what it belongs to', () => {
  const drive = { ...sampleDrive(3, { wearRatio: 0.1 }), capacityBytes: '8000000000000' }
  shown(<ObjectFacts name="drives" object={drive} references={[system]} />)
  const row = (words: string) => screen.getByRole('cell', { name: words }).parentElement as HTMLElement
  expect(within(row('System')).getByRole('link', { name: 'heron' }).getAttribute('href')).toBe(
    `/build/systems/${sampleId(1)}`,
  )
  expect(row('Serial').textContent).toContain('SER3')
  expect(row('Capacity bytes').textContent).toContain('7.28 TiB')
  expect(row('Wwn').textContent).toContain('not stated')
  expect(screen.queryByText('Revision')).toBeNull()
})

test.each([
  [undefined, undefined, ''],
  [null, 'bytes', ''],
  ['1099511627776', 'bytes', '1 TiB'],
  [1.5e9, 'bits a second', '1.5 Gb/s'],
  [true, 'up or down', 'up'],
  ['s1', 'name of', 'heron'],
  ['s2', 'name of', ''],
  [['a', 'b'], undefined, 'a, b'],
  [{ kind: 'parity' }, undefined, '{"kind":"parity"}'],
  [false, undefined, 'no'],
  [0, undefined, '0'],
] as const)('%j as %s reads %j', (value, as, text) => {
  expect(textOf(value, as, id => (id === 's1' ? 'heron' : undefined))).toBe(text)
})
