/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import { ServerLists } from '../table/ServerLists'
import { answering, shown } from '../testing/browser'
import { pushed } from '../testing/navigation'
import { SavedViews } from './SavedViews'
import { viewQuery } from './viewQuery'

const thick = { id: 'v1', path: '/provision', name: 'Thick ones', query: 'q=thick&sort=size', madeBy: 'keeper' }
const list = (
  <ServerLists>
    <SavedViews />
  </ServerLists>
)

test('what is open is no part of a view, and the same words in another order are the same view', () => {
  expect(viewQuery(new URLSearchParams('sort=size&sel=1&draft=x&change=y&q=a%26b'))).toBe('q=a%26b&sort=size')
  expect(viewQuery(new URLSearchParams('q=a%26b&sort=size'))).toBe('q=a%26b&sort=size')
  expect(viewQuery(new URLSearchParams('sel=1&q='))).toBe('')
})

test('a view is chosen by its name; the one that is shown names itself', async () => {
  answering(() => ({ body: { items: [thick] } }))
  const { user, unmount } = shown(list, '/provision')
  await user.click(screen.getByRole('button', { name: 'Views' }))
  await user.click(await screen.findByRole('menuitem', { name: /^Thick ones/ }))
  expect(pushed).toEqual(['/provision?q=thick&sort=size'])
  unmount()
  shown(list, '/provision?sort=size&q=thick&sel=9')
  expect(await screen.findByRole('button', { name: 'Thick ones' })).toBeTruthy()
})

test('a view is named as the list stands; a name that is taken is told, and what was typed stays', async () => {
  let tries = 0
  const asked = answering(({ method }) => {
    if (method === 'GET') return { body: { items: [] } }
    tries += 1
    return tries === 1
      ? { status: 409, body: { code: 'views.name-taken', what: 'Not saved.', why: 'It is taken.', remedy: 'Another.' } }
      : { status: 201, body: { ...thick, name: 'All of it' } }
  })
  const { user } = shown(list, '/provision?sort=size&sel=9')
  await user.click(screen.getByRole('button', { name: 'Views' }))
  expect(await screen.findByText('No view is named yet.')).toBeTruthy()
  await user.click(screen.getByRole('menuitem', { name: 'Name the list as it stands now' }))
  const name = await screen.findByLabelText<HTMLInputElement>('Name')
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Save' }).disabled).toBe(true)
  await user.type(name, 'All of it{Enter}')
  expect(await screen.findByText('It is taken.')).toBeTruthy()
  expect(name.value).toBe('All of it')
  await user.click(screen.getByRole('button', { name: 'Save' }))
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
  expect(asked.filter(each => each.method === 'POST').at(-1)?.body).toEqual({
    path: '/provision',
    name: 'All of it',
    query: 'sort=size',
  })
})

test('a view that nobody needs is dropped', async () => {
  const asked = answering(({ method }) => (method === 'GET' ? { body: { items: [thick] } } : { status: 204 }))
  const { user } = shown(list, '/provision')
  await user.click(screen.getByRole('button', { name: 'Views' }))
  await user.click(await screen.findByRole('menuitem', { name: 'Drop the view Thick ones' }))
  await waitFor(() => expect(asked.map(each => `${each.method} ${each.path}`)).toContain('DELETE /api/v1/views/v1'))
})
