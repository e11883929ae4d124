/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { shown } from '../testing/browser'
import { Hints } from './Hints'

const widths = (scroll: number, client: number) =>
  Object.defineProperties(HTMLElement.prototype, {
    scrollWidth: { configurable: true, get: () => scroll },
    clientWidth: { configurable: true, get: () => client },
  })
afterEach(() => widths(0, 0))

const page = (
  <>
    <span data-hint="4,398,046,511,104 B">
      <b>4 TiB</b>
    </span>
    <a href="#photos" data-hint="photos-of-the-whole-archive">
      photos-of-the-whole-archive
    </a>
    <p>plain</p>
    <Hints />
  </>
)

test('more than is shown is said beside whatever is pointed at, to all readers, and goes with the pointer', async () => {
  const { user } = shown(page)
  await user.hover(screen.getByText('4 TiB'))
  const hint = await screen.findByRole('tooltip')
  expect(hint.textContent).toBe('4,398,046,511,104 B')
  const described = screen.getByText('4 TiB').parentElement
  expect(described?.getAttribute('aria-describedby')).toBe(hint.id)
  await user.hover(screen.getByText('plain'))
  expect(screen.queryByRole('tooltip')).toBeNull()
  expect(described?.hasAttribute('aria-describedby')).toBe(false)
})

test('words that are there in full are not said twice; those that are cut off are, by keyboard too, until Escape', async () => {
  const { user } = shown(page)
  const wait = () => new Promise(done => setTimeout(done, 500))
  widths(100, 100)
  await user.hover(screen.getByText('photos-of-the-whole-archive'))
  await wait()
  expect(screen.queryByRole('tooltip')).toBeNull()
  await user.hover(screen.getByText('plain'))
  widths(200, 100)
  await user.tab()
  expect((await screen.findByRole('tooltip')).textContent).toBe('photos-of-the-whole-archive')
  await user.keyboard('{Escape}')
  expect(screen.queryByRole('tooltip')).toBeNull()
})
