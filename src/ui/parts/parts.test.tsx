/** @jest-environment jsdom */
import { Tip } from './Tip'
import { screen, waitFor } from '@testing-library/react'
import { useState } from 'react'
import { shown, wordsOf } from '../testing/browser'
import { Bytes } from './Bytes'
import { Choice } from './Choice'
import { Copied } from './Copied'
import { Field } from './Field'
import { NameField } from './NameField'
import { NumberField } from './NumberField'
import { State } from './State'

test('a size shows both unit families and the exact count, beyond what a number holds', () => {
  shown(<Bytes bytes="9007199254740993" />)
  const shownSize = screen.getByText('8 PiB')
  expect(shownSize.dataset['hint']).toContain('9,007,199,254,740,993')
  expect(shownSize.dataset['hint']).toMatch(/PB$/)
})

test('a field ties label, hint and error to its input', () => {
  shown(
    <Field label="Name" hint="Letters only" error="Digits are none.">
      {props => <input {...props} />}
    </Field>,
  )
  const input = screen.getByLabelText('Name')
  expect(input.getAttribute('aria-invalid')).toBe('true')
  const described = document.getElementById(input.getAttribute('aria-describedby') ?? '')
  expect(wordsOf(described)).toBe('Letters only[now] Digits are none.')
})

const now = { number: 4, name: '', way: 'a' as 'a' | 'b' }
function Number() {
  const [value, set] = useState(4)
  const take = (next: number) => set((now.number = next))
  return <NumberField label="Pieces" hint="2 to 16" value={value} least={2} most={16} onChange={take} />
}

test('a number is not changed while it is typed; what is beyond its bounds or none is told, and handed on as it stands', async () => {
  const { user } = shown(<Number />)
  const field = screen.getByLabelText<HTMLInputElement>('Pieces')
  await user.clear(field)
  expect([field.value, now.number]).toEqual(['', NaN])
  await user.type(field, '1')
  expect(screen.getByText('Give a whole number from 2 to 16.')).toBeTruthy()
  await user.type(field, '2')
  expect([field.value, now.number]).toEqual(['12', 12])
  expect(screen.queryByText(/Give a whole number/)).toBeNull()
  await user.type(field, '0')
  expect([field.value, now.number]).toEqual(['120', 120])
  expect(field.getAttribute('aria-invalid')).toBe('true')
})

test('a suggested name is taken over by one press, and offered only while there is none', async () => {
  const take = (name: string) => (now.name = name)
  const { user, rerender } = shown(
    <NameField hint="" value="" suggestion="kiln-01" error={undefined} onChange={take} />,
  )
  await user.click(screen.getByRole('button', { name: 'Use kiln-01' }))
  expect(now.name).toBe('kiln-01')
  rerender(<NameField hint="" value="kiln-01" suggestion="kiln-02" error={undefined} onChange={take} />)
  expect(screen.queryByRole('button')).toBeNull()
})

test('of a choice one always stands, by mouse and by arrow keys', async () => {
  const options = [
    { value: 'a' as const, words: 'first' },
    { value: 'b' as const, words: 'second' },
  ]
  const { user } = shown(<Choice label="Way" value="a" options={options} onChange={way => (now.way = way)} />)
  await user.click(screen.getByRole('radio', { name: 'first' }))
  expect(now.way).toBe('a')
  await user.click(screen.getByRole('radio', { name: 'second' }))
  expect(now.way).toBe('b')
})

test('an identifier is copied whole, also where only a part of it is shown', async () => {
  const { user } = shown(<Copied text="naa.6000123" shown="…0123" />)
  await user.click(screen.getByRole('button', { name: '…0123' }))
  expect(await navigator.clipboard.readText()).toBe('naa.6000123')
  expect(screen.getByText('copied', { exact: false })).toBeTruthy()
})

test('a state is a shape and a word, so that it needs no colour', () => {
  const shapes = (['fine', 'soon', 'now', 'note', 'unknown'] as const).map(gravity => {
    const { container, unmount } = shown(<State gravity={gravity}>word</State>)
    const text = `${container.querySelector('svg')?.outerHTML.replace(/ data-gravity="\\w+"/, '') ?? ''} ${container.textContent ?? ''}`
    unmount()
    return text
  })
  expect(new Set(shapes).size).toBe(5)
  for (const each of shapes) expect(each.endsWith('word')).toBe(true)
})

test('a tip stands beside what is pointed at, describes it, and goes with Escape or when it is left', async () => {
  const { user } = shown(
    <Tip words="All of it">
      <button type="button">Some</button>
    </Tip>,
  )
  const button = screen.getByRole('button', { name: 'Some' })
  expect(screen.queryByRole('tooltip')).toBeNull()
  await user.hover(button)
  const tip = await screen.findByRole('tooltip')
  expect(tip.textContent).toBe('All of it')
  expect(button.getAttribute('aria-describedby')).toBe(tip.id)
  await user.unhover(button)
  await waitFor(() => expect(screen.queryByRole('tooltip')).toBeNull())
  await user.tab()
  expect(document.activeElement).toBe(button)
  await screen.findByRole('tooltip')
  await user.keyboard('{Escape}')
  await waitFor(() => expect(screen.queryByRole('tooltip')).toBeNull())
  expect(button.getAttribute('aria-describedby')).toBeNull()
})
