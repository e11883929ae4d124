/** @jest-environment jsdom */
import { screen, within } from '@testing-library/react'
import { giveSizes, shown } from '../testing/browser'
import { DataTable } from './DataTable'
import type { TableColumn } from './TableColumn'

beforeAll(() => giveSizes())

interface Bird {
  readonly name: string
  readonly grams: number
}
const birds: readonly Bird[] = [
  { name: 'wren 2', grams: 9 },
  { name: 'heron', grams: 1500 },
  { name: 'wren 10', grams: 10 },
  { name: 'bittern', grams: 1100 },
]
const columns: readonly TableColumn<Bird>[] = [
  { id: 'name', head: 'Name', track: '1fr', text: bird => bird.name },
  {
    id: 'grams',
    head: 'Grams',
    track: '80px',
    text: bird => `${bird.grams}`,
    order: bird => bird.grams,
    isNumber: true,
  },
  { id: 'length', head: 'Letters', track: '80px', text: bird => `${bird.name.length}`, isAtFirstHidden: true },
]
const opened: string[] = []
const table = (rows = birds) => (
  <DataTable
    label="Birds"
    rows={rows}
    columns={columns}
    idOf={bird => bird.name}
    sortAtFirst="name"
    selected={undefined}
    onOpen={bird => opened.push(bird.name)}
    csvName="birds.csv"
    bulk={chosen => <output>{chosen.map(bird => bird.name).join(', ')}</output>}
  />
)
const names = () => [...document.querySelectorAll('[data-row]')].map(each => each.textContent)

test('rows stand in the order of numbers within names, and of a column when its head is pressed', async () => {
  const { user, rerender } = shown(table(), '/birds?kind=a')
  expect(names()).toEqual(['bittern', 'heron', 'wren 2', 'wren 10'])
  await user.click(screen.getByRole('button', { name: 'Grams' }))
  rerender(table())
  expect(names()).toEqual(['wren 2', 'wren 10', 'bittern', 'heron'])
  expect(screen.getByRole('columnheader', { name: /Grams/ }).getAttribute('aria-sort')).toBe('ascending')
  await user.click(screen.getByRole('button', { name: /Grams/ }))
  rerender(table())
  expect(names()).toEqual(['heron', 'bittern', 'wren 10', 'wren 2'])
  expect(window.location.search).toBe('?kind=a&sort=grams&descending=true')
})

test('the address gives filter and columns; a filter that nothing meets says so and is taken back', async () => {
  const { user, rerender } = shown(table(), '/birds?find=WREN&columns=name,length')
  expect(names()).toEqual(['wren 2', 'wren 10'])
  expect(screen.getByText('2 of 4')).toBeTruthy()
  expect(screen.queryByText('Grams')).toBeNull()
  expect(within(screen.getByRole('table')).getByText('Letters')).toBeTruthy()
  await user.type(screen.getByLabelText('Filter birds'), 'x')
  rerender(table())
  expect(screen.getByText(/None of 4 holds/)).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'Show all' }))
  rerender(table())
  expect(names()).toHaveLength(4)
})

test('rows are chosen one by one, by a range with Shift, and all; what is gone is chosen no longer', async () => {
  const { user, rerender } = shown(table())
  await user.click(screen.getByLabelText('Choose heron'))
  expect(screen.getByRole('status').textContent).toBe('heron')
  await user.keyboard('{Shift>}')
  await user.click(screen.getByLabelText('Choose wren 10'))
  await user.keyboard('{/Shift}')
  expect(screen.getByRole('status').textContent).toBe('wren 2, heron, wren 10')
  rerender(table(birds.filter(bird => bird.name !== 'heron')))
  expect(screen.getByRole('status').textContent).toBe('wren 2, wren 10')
  await user.click(screen.getByLabelText('Choose all birds shown'))
  expect(screen.getByRole('status').textContent).toBe('wren 2, wren 10, bittern')
  await user.click(screen.getByLabelText('Choose all birds shown'))
  expect(screen.queryByRole('status')).toBeNull()
})

test('a row is opened by its first column, with the keyboard too', async () => {
  const { user } = shown(table())
  await user.click(screen.getByRole('button', { name: 'heron' }))
  screen.getByRole('button', { name: 'wren 2' }).focus()
  await user.keyboard('{Enter}')
  expect(opened).toEqual(['heron', 'wren 2'])
})

test('columns are chosen in a list; the first cannot be taken away', async () => {
  const { user, rerender } = shown(table())
  await user.click(screen.getByRole('button', { name: 'Columns' }))
  expect(screen.queryByRole('menuitemcheckbox', { name: 'Name' })).toBeNull()
  await user.click(screen.getByRole('menuitemcheckbox', { name: 'Letters' }))
  await user.keyboard('{Escape}')
  rerender(table())
  expect(window.location.search).toBe('?columns=name%2Cgrams%2Clength')
  expect(within(screen.getByRole('table')).getByText('Letters')).toBeTruthy()
})

test('of a hundred thousand rows only those in sight are drawn', () => {
  shown(table(Array.from({ length: 100_000 }, (_, index) => ({ name: `bird ${index}`, grams: index }))))
  expect(screen.getByRole('table').getAttribute('aria-rowcount')).toBe('100001')
  expect(names().length).toBeGreaterThan(10)
  expect(names().length).toBeLessThan(60)
})
