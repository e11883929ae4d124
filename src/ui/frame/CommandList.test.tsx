/** @jest-environment jsdom */
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { answering, giveSizes, shown } from '../testing/browser'
import { pushed } from '../testing/navigation'
import { CommandList } from './CommandList'
import { commands } from './commands'
import { keys } from './keys'
import { sections } from './sections'
import { marginEvent } from './theme'

beforeAll(() => {
  giveSizes()
  // jsdom scrolls nothing
  HTMLElement.prototype.scrollIntoView = () => undefined
})
const page = (
  <>
    <CommandList />
    <button type="button" data-row>
      first
    </button>
    <button type="button" data-row>
      second
    </button>
    <button type="button" data-key="new" onClick={() => pushed.push('new')}>
      New
    </button>
    <button type="button" data-key="carry-out" disabled onClick={() => pushed.push('carried out')}>
      Carry out
    </button>
    <div data-margin>
      <input type="hidden" />
      <input aria-label="Field" />
    </div>
  </>
)
const press = (key: string, more: object = {}, on: Element = document.body) => fireEvent.keyDown(on, { key, ...more })

test('digits go to the sections, but not while something is typed', () => {
  shown(page)
  for (const { key } of sections) press(key)
  press('0')
  expect(pushed).toEqual([...sections.map(each => each.href), '/changes'])
  const field = screen.getByLabelText('Field')
  field.focus()
  press('2', {}, field)
  press('n', {}, field)
  expect(pushed).toHaveLength(sections.length + 1)
  press('Escape', {}, field)
  expect(document.activeElement).toBe(document.body)
  press('2', { ctrlKey: true })
  expect(pushed).toHaveLength(sections.length + 1)
})

test('j and k go through the rows, e to the first field, n begins a draft, a barred draft is not carried out', () => {
  shown(page)
  press('j')
  expect(document.activeElement?.textContent).toBe('first')
  press('j')
  press('j')
  expect(document.activeElement?.textContent).toBe('second')
  press('k')
  expect(document.activeElement?.textContent).toBe('first')
  press('n')
  press('Enter', { shiftKey: true })
  expect(pushed).toEqual(['new'])
  press('e')
  expect(document.activeElement).toBe(screen.getByLabelText('Field'))
})

test('the margin is folded by a point, the keys are listed by a question mark', async () => {
  const { user } = shown(page)
  const folded = jest.fn()
  window.addEventListener(marginEvent, folded)
  press('.')
  expect(folded).toHaveBeenCalledTimes(1)
  press('?')
  const list = await screen.findByRole('dialog')
  for (const [, words] of keys) expect(within(list).getByText(words)).toBeTruthy()
  // What is open takes the keys.
  press('1')
  expect(pushed).toEqual([])
  await user.keyboard('{Escape}')
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
})

test('every command is in the list and is found by a part of its words', async () => {
  const { user } = shown(page)
  press('k', { ctrlKey: true })
  const list = await screen.findByRole('dialog')
  for (const { words } of commands) expect(within(list).getByText(words)).toBeTruthy()
  await user.type(within(list).getByRole('combobox'), 'catalogue')
  await waitFor(() => expect(within(list).queryByText('Erase a drive')).toBeNull())
  await user.keyboard('{Enter}')
  expect(pushed).toEqual(['/build/network?draft=import-catalogue'])
})

test('what the estate holds is found by name, each kind at its own place', async () => {
  const asked = answering(() => ({
    body: {
      items: [
        { kind: 'drive', id: 'd1', name: 'AFBD 23AF', systemId: 's1' },
        { kind: 'volume', id: 'v1', name: 'AFBD-copy', systemId: 's1' },
      ],
    },
  }))
  const { user } = shown(page)
  press('/')
  const list = await screen.findByRole('dialog')
  await user.type(within(list).getByRole('combobox'), 'afbd')
  await user.click(await within(list).findByText('AFBD 23AF'))
  expect(pushed).toEqual(['/build/systems/s1?drive=d1'])
  expect(asked.at(-1)?.path).toBe('/api/v1/search?text=afbd')
})

test('night and day are kept where the server sees them', async () => {
  const { user } = shown(page)
  press('/')
  await user.click(await screen.findByText('Night round or day'))
  expect(document.documentElement.dataset['theme']).toBe('night')
  expect(document.cookie).toContain('theme=night')
})
