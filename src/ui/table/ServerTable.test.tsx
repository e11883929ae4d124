/** @jest-environment jsdom */
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { ServerLists } from '../table/ServerLists'
import { answering, giveSizes, pass, shown, type Asked } from '../testing/browser'
import { pushed } from '../testing/navigation'
import { ServerTable, type ServerColumn, type ServerPage } from '.'

interface Line {
  readonly id: string
  readonly name: string
  readonly systemId: string
}
const columns: readonly ServerColumn<Line>[] = [
  { id: 'name', head: 'Port', track: '1fr', sort: 'name', text: line => line.name },
  { id: 'system', head: 'System', track: '1fr', text: (line, nameOf) => nameOf(line.systemId) ?? '' },
  { id: 'id', head: 'Id', track: '1fr', sort: 'id', text: line => line.id, isAtFirstHidden: true },
]
const line = (index: number): Line => ({ id: `id-${index}`, name: `port ${index}`, systemId: `s${index % 2}` })
const page = (offset: number, total: number, limit = 200): ServerPage<Line> => ({
  total,
  items: Array.from({ length: Math.max(0, Math.min(limit, total - offset)) }, (_, index) => line(offset + index)),
  names: { s0: 'heron', s1: 'curlew' },
})
const table = (total: number, more: object = {}) => (
  <ServerLists>
    <ServerTable
      label="Ports"
      path="/ports"
      question="filter=port"
      first={page(0, total)}
      columns={columns}
      idOf={each => each.id}
      sortAtFirst="name"
      selected="id-1"
      filterWords="Filter ports"
      {...more}
    />
  </ServerLists>
)
const serving = (total: number) => (asked: Asked) => {
  const query = new URLSearchParams(asked.path.split('?')[1])
  return { body: page(Number(query.get('offset')), total, Number(query.get('limit'))) }
}
beforeAll(() => giveSizes())

test('a table of a hundred thousand rows draws some dozens, says how many there are, and asks for nothing it has', () => {
  const asked = answering(serving(100_000))
  shown(table(100_000))
  expect(screen.getByText('100,000 in all')).toBeTruthy()
  expect(screen.getByRole('table').getAttribute('aria-rowcount')).toBe('100001')
  expect(screen.getAllByRole('row').length).toBeLessThan(90)
  expect(screen.getByRole('row', { name: /port 1 curlew/ }).dataset['selected']).toBe('true')
  expect(asked.every(each => each.path.includes('offset=200'))).toBe(true)
})

test('what comes into sight is read, a page at a time, with the question that the list was asked', async () => {
  const asked = answering(serving(5000))
  shown(table(5000))
  const frame = screen.getAllByRole('rowgroup')[0] as HTMLElement
  Object.defineProperty(frame, 'scrollTop', { configurable: true, value: 29 * 3000 })
  fireEvent.scroll(frame)
  await screen.findByText('port 3001')
  expect(asked.map(each => each.path)).toContain('/api/v1/ports?filter=port&offset=3000&limit=200')
})

test('a row that is still on its way is a shape of the same size; a server that fails is asked again', async () => {
  let isAway = true
  answering(asked => (isAway ? 'unreachable' : serving(5000)(asked)))
  shown(table(5000))
  const frame = screen.getAllByRole('rowgroup')[0] as HTMLElement
  Object.defineProperty(frame, 'scrollTop', { configurable: true, value: 29 * 3000 })
  fireEvent.scroll(frame)
  expect((await screen.findAllByLabelText('Loading')).length).toBeGreaterThan(5)
  isAway = false
  await screen.findByText('port 3001')
})

test('a head that can be sorted by says so in the address; a second click turns it round', async () => {
  answering(serving(3))
  const { user, unmount } = shown(table(3), '/build/ports?columns=name,id')
  await user.click(screen.getByRole('button', { name: 'Id' }))
  expect(pushed).toEqual(['/build/ports?columns=name%2Cid&sort=id'])
  unmount()
  const again = shown(table(3), '/build/ports?columns=name,id&sort=id')
  expect(screen.getByRole('columnheader', { name: /Id/ }).getAttribute('aria-sort')).toBe('ascending')
  await again.user.click(screen.getByRole('button', { name: /Id/ }))
  expect(pushed).toEqual(['/build/ports?columns=name%2Cid&sort=id&descending=true'])
})

test('columns are chosen by the address, and the first always stands', async () => {
  answering(serving(3))
  const { user } = shown(table(3))
  expect(screen.queryByRole('columnheader', { name: 'Id' })).toBeNull()
  await user.click(screen.getByRole('button', { name: 'Columns' }))
  await user.click(await screen.findByRole('menuitemcheckbox', { name: 'Id' }))
  expect(pushed).toEqual(['/?columns=name%2Csystem%2Cid'])
})

test('the filter waits for the end of a word, and goes into the address', async () => {
  answering(serving(3))
  const { user } = shown(table(3))
  await user.type(screen.getByLabelText('Filter ports'), 'eth%')
  await waitFor(() => expect(pushed.at(-1)).toBe('/?filter=eth%25'))
  expect(pushed).toHaveLength(1)
})

test('a filter that was typed just before a link was followed does not lead back from there', async () => {
  answering(serving(3))
  const { user, rerender } = shown(table(3))
  await user.type(screen.getByLabelText('Filter ports'), 'eth')
  await user.click(screen.getByRole('link', { name: 'port 2' }))
  pushed.length = 0
  window.history.replaceState(null, '', '/?sel=id-2')
  rerender(table(3))
  await pass(250)
  expect(pushed).toEqual([])
  expect(screen.getByLabelText<HTMLInputElement>('Filter ports').value).toBe('')
})

test('all rows are saved, not only those in sight, with the names of what they refer to', async () => {
  answering(serving(1203))
  let saved: Blob | undefined
  URL.createObjectURL = blob => {
    saved = blob as Blob
    return 'blob:'
  }
  URL.revokeObjectURL = () => undefined
  HTMLAnchorElement.prototype.click = () => undefined
  const { user } = shown(table(1203))
  await user.click(screen.getByRole('button', { name: 'CSV' }))
  await waitFor(() => expect(saved).toBeDefined())
  const text = await new Promise<string>(resolve => {
    const reader = new FileReader()
    reader.onload = () => resolve(String(reader.result))
    reader.readAsText(saved as Blob)
  })
  const lines = text.trim().split('\r\n')
  expect(lines).toHaveLength(1204)
  expect(lines.at(0)).toBe('Port,System,Id')
  expect(lines.at(-1)).toBe('port 1202,heron,id-1202')
})

test('another question begins at the top, and the table stays', () => {
  answering(serving(500))
  const { rerender } = shown(table(500))
  rerender(table(500, { question: 'filter=other', first: page(0, 3) }))
  rerender(table(500, { question: 'filter=third', first: page(0, 2) }))
  expect(screen.getByText('2 in all')).toBeTruthy()
})

test('each row is a link that selects it and keeps all else in the address', () => {
  answering(serving(3))
  shown(table(3), '/build/ports?filter=port&draft=x&change=y')
  const row = screen.getByRole('row', { name: /port 2/ })
  expect(within(row).getByRole('link').getAttribute('href')).toBe('/build/ports?filter=port&sel=id-2')
})

describe('rows that can be chosen', () => {
  const bulk = (chosen: readonly Line[]) => <span role="status">{chosen.map(each => each.name).join(', ')}</span>
  const box = (name: string) => screen.getByLabelText(`Choose ${name}`)

  test('a range with Shift, and one taken out again', async () => {
    answering(serving(9))
    const { user } = shown(table(9, { bulk }))
    expect(screen.getByText('9 in all')).toBeTruthy()
    await user.click(box('port 1'))
    await user.keyboard('{Shift>}')
    await user.click(box('port 4'))
    await user.keyboard('{/Shift}')
    expect(screen.getByRole('status').textContent).toBe('port 1, port 2, port 3, port 4')
    await user.click(box('port 3'))
    expect(screen.getByRole('status').textContent).toBe('port 1, port 2, port 4')
  })

  test('all of the list, also what has not been read yet, and none again', async () => {
    const asked = answering(serving(1200))
    const { user } = shown(table(1200, { bulk: (chosen: readonly Line[]) => <b role="status">{chosen.length}</b> }))
    await user.click(screen.getByLabelText('Choose all ports of the list'))
    expect((await screen.findByRole('status')).textContent).toBe('1200')
    expect(asked.filter(each => each.path.includes('limit=500')).map(each => each.path.split('offset=')[1])).toEqual([
      '0&limit=500',
      '500&limit=500',
      '1000&limit=500',
    ])
    await user.click(screen.getByLabelText('Choose all ports of the list'))
    expect(screen.queryByRole('status')).toBeNull()
  })

  test('a server that does not answer chooses nothing', async () => {
    answering(() => 'unreachable')
    const { user } = shown(table(1200, { bulk }))
    await user.click(screen.getByLabelText('Choose all ports of the list'))
    await pass(50)
    expect(screen.queryByRole('status')).toBeNull()
  })

  test('a list that may not be chosen from has no boxes', () => {
    shown(table(3))
    expect(screen.queryByRole('checkbox')).toBeNull()
  })
})

test('where there is no room for columns, a row says the heads in front of what it says', () => {
  window.matchMedia = () => ({ matches: true, addEventListener: () => {}, removeEventListener: () => {} }) as never
  shown(table(3))
  expect(screen.getByRole('row', { name: /port 1 System curlew/ })).toBeTruthy()
  expect(screen.getByRole('row', { name: /port 1 System curlew/ }).style.height).toBe('50px')
})
