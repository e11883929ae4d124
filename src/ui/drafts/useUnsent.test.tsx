/**
 * @jest-environment jsdom
 * @alone
 */
import { screen, waitFor } from '@testing-library/react'
import { signOut } from '../frame'
import { answering, shown } from '../testing/browser'
import { Form, draftOf, keeping, nameOf, settled } from './testing/nameForm'

beforeEach(() => sessionStorage.clear())

test('what could not be sent stands there again when the browser has read the page anew', async () => {
  let isAway = true
  const asked = answering(each => (isAway ? 'unreachable' : keeping(each)))
  const { user, unmount } = shown(<Form kept={draftOf('her', 7)} />)
  await user.type(screen.getByLabelText('Name'), 'on')
  await screen.findByRole('alert')
  window.dispatchEvent(new Event('pagehide'))
  unmount()
  isAway = false
  const again = shown(<Form kept={draftOf('her', 7)} />)
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('heron')
  await screen.findByText('heron is free.')
  expect(asked.at(-1)).toMatchObject({ method: 'PUT', body: { intent: { name: 'heron' }, edit: 7 } })
  again.unmount()
  shown(<Form kept={draftOf('heron', 8)} />)
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('heron')
  expect(screen.queryByRole('alert')).toBeNull()
})

test('what could not be sent does not pass over what somebody else has saved meanwhile', async () => {
  answering(() => 'unreachable')
  const { user, unmount } = shown(<Form kept={draftOf('her', 7)} />)
  await user.type(screen.getByLabelText('Name'), 'on')
  window.dispatchEvent(new Event('pagehide'))
  unmount()
  const asked = answering(keeping)
  shown(<Form kept={draftOf('curlew', 9, { editedBy: 'mara' })} />)
  expect((await screen.findByText(/mara has altered this draft meanwhile/)).textContent).toBeTruthy()
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('heron')
  expect(screen.getByRole<HTMLButtonElement>('button', { name: /Carry out/ }).disabled).toBe(true)
  expect(asked.filter(each => each.path.endsWith('/carry-out'))).toEqual([])
})

test('a page that was read before what its tab sent last had arrived goes on from that, and reproaches nobody', async () => {
  answering(each => ({ body: draftOf(nameOf(each), 8) }))
  const { user, unmount } = shown(<Form kept={draftOf('her', 7)} />)
  await user.type(screen.getByLabelText('Name'), 'on')
  await screen.findByText('heron is free.')
  window.dispatchEvent(new Event('pagehide'))
  unmount()
  const asked = answering(each => ({ body: draftOf(nameOf(each), 9) }))
  const again = shown(<Form kept={draftOf('her', 7)} />)
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('heron')
  await screen.findByText('heron is free.')
  expect(asked).toMatchObject([{ method: 'PUT', body: { intent: { name: 'heron' }, edit: 8 } }])
  expect(screen.queryByRole('alert')).toBeNull()
  // What somebody else has made of it later stands there as it is.
  window.dispatchEvent(new Event('pagehide'))
  again.unmount()
  shown(<Form kept={draftOf('curlew', 12, { editedBy: 'mara' })} />)
  await settled()
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('curlew')
  expect(screen.queryByRole('alert')).toBeNull()
})

test('an unkept draft that could not be sent is there again where it was begun, and nowhere else', async () => {
  answering(() => 'unreachable')
  const { user, unmount } = shown(<Form />, '/build?draft=name-it&system=a')
  await user.type(screen.getByLabelText('Name'), 'heron')
  window.dispatchEvent(new Event('pagehide'))
  unmount()
  answering(keeping)
  const other = shown(<Form />, '/build?draft=name-it&system=b')
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('')
  other.unmount()
  shown(<Form />, '/build?draft=name-it&system=a')
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('heron')
})

test('what was typed last is sent when the form goes before it was planned', async () => {
  const asked = answering(keeping)
  const { user, unmount } = shown(<Form />)
  await user.type(screen.getByLabelText('Name'), 'heron')
  await screen.findByText('heron is free.')
  await user.type(screen.getByLabelText('Name'), '2')
  unmount()
  await waitFor(() => expect(asked.at(-1)).toMatchObject({ method: 'PUT', body: { intent: { name: 'heron2' } } }))
})

test('what is not answered when the form goes stands there again, also where its frame went first', async () => {
  answering(keeping)
  const { user, unmount } = shown(
    <div data-reader="keeper">
      <Form kept={draftOf('her', 7)} />
    </div>,
  )
  await user.type(screen.getByLabelText('Name'), 'on')
  globalThis.fetch = () => new Promise(() => undefined)
  document.querySelector('[data-reader]')?.removeAttribute('data-reader')
  unmount()
  // The document is read anew before anything has been answered.
  answering(keeping)
  shown(
    <div data-reader="keeper">
      <Form kept={draftOf('her', 7)} />
    </div>,
  )
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('heron')
  await screen.findByText('heron is free.')
})

test('who comes in later by the same tab does not see what somebody else has typed; whoever typed it does', async () => {
  answering(() => 'unreachable')
  const formOf = (reader: string) => (
    <div data-reader={reader}>
      <Form />
    </div>
  )
  const { user, unmount } = shown(formOf('keeper'), '/build?draft=name-it')
  await user.type(screen.getByLabelText('Name'), 'heron')
  window.dispatchEvent(new Event('pagehide'))
  unmount()
  const other = shown(formOf('mara'), '/build?draft=name-it')
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('')
  other.unmount()
  shown(formOf('keeper'), '/build?draft=name-it')
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('heron')
})

// The last one: a tab that was signed out of keeps nothing more until its page is read anew.
test('who signs out leaves nothing of what was typed, also as the page goes', async () => {
  const asked = answering(({ method }) => (method === 'DELETE' ? { status: 204 } : 'unreachable'))
  const { user } = shown(<Form />, '/build?draft=name-it')
  await user.type(screen.getByLabelText('Name'), 'heron')
  window.dispatchEvent(new Event('pagehide'))
  const left = () => Object.keys(sessionStorage).filter(key => key.includes('name-it'))
  expect(left()).toHaveLength(1)
  await signOut()
  window.dispatchEvent(new Event('pagehide'))
  expect(left()).toEqual([])
  expect(asked.at(-1)).toMatchObject({ method: 'DELETE', path: '/api/v1/session' })
})
