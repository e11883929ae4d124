/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import { answering, shown } from '../testing/browser'
import { pushed } from '../testing/navigation'
import { isMadeHere } from './draftStanding'
import { Form, draftOf, keeping, lastEdit, nameOf, planFor, settled } from './testing/nameForm'

beforeEach(() => sessionStorage.clear())

test('an untouched draft is planned, not kept, and reproaches nothing yet', async () => {
  const asked = answering(keeping)
  shown(<Form />)
  await settled()
  expect(asked.map(({ method, path }) => `${method} ${path}`)).toEqual(['POST /api/v1/plans'])
  expect(screen.getByText('not kept yet')).toBeTruthy()
  expect(screen.getByText('Give it a name.')).toBeTruthy()
  expect(screen.getByLabelText('Name').getAttribute('aria-invalid')).toBe('false')
  expect(screen.getByRole<HTMLButtonElement>('button', { name: /Carry out/ }).disabled).toBe(true)
})

test('the first edit keeps it, once, however fast the keys; the address names it', async () => {
  const asked = answering(keeping)
  const { user } = shown(<Form />, '/build?draft=name-it')
  await user.type(screen.getByLabelText('Name'), 'heron')
  await screen.findByText('heron is free.')
  await user.type(screen.getByLabelText('Name'), 's')
  await screen.findByText('herons is free.')
  expect(asked.filter(each => each.method === 'POST' && each.path === '/api/v1/changes')).toHaveLength(1)
  expect(asked.at(-1)).toMatchObject({
    method: 'PUT',
    path: '/api/v1/changes/c1',
    body: { intent: { name: 'herons', size: 4 }, edit: lastEdit() - 1 },
  })
  expect(window.location.search).toBe('?draft=name-it&change=c1')
  expect(isMadeHere('c1')).toBe(true)
  expect(screen.getByText('kept as a draft')).toBeTruthy()
})

test('a field that was touched says what is wrong with it', async () => {
  answering(keeping)
  const { user } = shown(<Form />)
  await user.type(screen.getByLabelText('Name'), 'a{Backspace}')
  const field = screen.getByLabelText('Name')
  await waitFor(() => expect(field.getAttribute('aria-invalid')).toBe('true'))
  const described = document.getElementById(field.getAttribute('aria-describedby') ?? '')
  expect(described?.textContent).toContain('Give it a name.')
})

test('one write at a time, always the latest: what is typed meanwhile follows, and nothing older passes it', async () => {
  let release: (() => void) | undefined
  const asked = answering(keeping)
  const quick = globalThis.fetch
  globalThis.fetch = ((path: string, init: { body: string }) => {
    const answer = quick(path, init as RequestInit)
    if (release !== undefined || !init.body.includes('"slow"')) return answer
    return new Promise(resolve => (release = () => resolve(answer)))
  }) as typeof fetch
  const { user } = shown(<Form kept={draftOf('', 1)} />)
  await user.type(screen.getByLabelText('Name'), 'slow')
  await settled()
  await user.type(screen.getByLabelText('Name'), 'e')
  await settled()
  await user.type(screen.getByLabelText('Name'), 'r')
  await settled()
  expect(asked.map(nameOf)).toEqual(['slow'])
  expect(screen.getByRole<HTMLButtonElement>('button', { name: /Carry out/ }).disabled).toBe(true)
  release?.()
  await screen.findByText('slower is free.')
  expect(asked.map(nameOf)).toEqual(['slow', 'slower'])
  await waitFor(() => expect(screen.getByRole<HTMLButtonElement>('button', { name: /Carry out/ }).disabled).toBe(false))
})

test('what is carried out is what was seen: its digest goes with the word', async () => {
  const asked = answering(keeping)
  const { user } = shown(<Form />)
  await user.type(screen.getByLabelText('Name'), 'heron')
  await screen.findByText('heron is free.')
  await user.click(screen.getByRole('button', { name: /Carry out/ }))
  await waitFor(() =>
    expect(asked.at(-1)).toMatchObject({
      path: '/api/v1/changes/c1/carry-out',
      body: { planDigest: 'digest of heron' },
    }),
  )
})

test('what a plan rests on has changed between its showing and its keeping: it is said, and nothing is carried out', async () => {
  const resting = (revisions: string) => ({ ...planFor('heron'), revisions })
  const asked = answering(each => {
    if (each.path === '/api/v1/plans') return { body: resting('3 7') }
    return each.path === '/api/v1/changes' ? { body: draftOf('', 1, { plan: resting('3 8') }) } : keeping(each)
  })
  const { user } = shown(<Form />)
  await screen.findByText('heron is free.')
  await user.click(screen.getByRole('button', { name: /Carry out/ }))
  expect((await screen.findByRole('alert')).textContent).toContain('Something that it rests on has changed')
  expect(asked.filter(each => each.path.endsWith('/carry-out'))).toEqual([])
  await user.click(screen.getByRole('button', { name: /Carry out/ }))
  await waitFor(() => expect(asked.at(-1)?.path).toBe('/api/v1/changes/c1/carry-out'))
})

test('an edit by somebody else is shown, and nothing is carried out before it is settled', async () => {
  const theirs = draftOf('curlew', 40, { editedBy: 'mara' })
  const refused = { code: 'drafting.edited-elsewhere', what: 'w', why: 'y', remedy: 'r' }
  let isSettled = false
  const asked = answering(each => {
    if (each.method === 'GET') return { body: { change: theirs } }
    if (each.method === 'PUT' && !isSettled) return { status: 409, body: refused }
    return keeping(each)
  })
  const { user } = shown(<Form kept={draftOf('her', 1)} />)
  await user.type(screen.getByLabelText('Name'), 'on')
  expect((await screen.findByRole('alert')).textContent).toContain('mara has altered this draft meanwhile.')
  expect(screen.getByRole('alert').textContent).toContain('name: heron here, curlew there')
  expect(screen.getByRole<HTMLButtonElement>('button', { name: /Carry out/ }).disabled).toBe(true)
  isSettled = true
  await user.click(screen.getByRole('button', { name: 'Keep what stands here' }))
  await screen.findByText('heron is free.')
  expect(asked.at(-1)).toMatchObject({ method: 'PUT', body: { intent: { name: 'heron' }, edit: 40 } })
})

test('what somebody else has saved is shown as soon as the page hears of it, and can be taken over', async () => {
  answering(keeping)
  const { user, rerender } = shown(<Form kept={draftOf('heron', 3)} />)
  rerender(<Form kept={draftOf('curlew', 4, { editedBy: 'mara' })} />)
  expect((await screen.findByRole('alert')).textContent).toContain('mara')
  await user.click(screen.getByRole('button', { name: 'Take it as it is there' }))
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('curlew')
  expect(screen.queryByRole('alert')).toBeNull()
})

test('what cannot be sent is told, stays typed, and is sent when the server is back', async () => {
  let isAway = true
  const asked = answering(each => (isAway ? 'unreachable' : keeping(each)))
  const { user } = shown(<Form />)
  await user.type(screen.getByLabelText('Name'), 'heron')
  expect((await screen.findByRole('alert')).textContent).toContain('What you typed stays here')
  isAway = false
  await waitFor(() => expect(screen.queryByRole('alert')).toBeNull())
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('heron')
  expect(
    asked.some(each => each.method === 'POST' && each.path === '/api/v1/changes' && nameOf(each) === 'heron'),
  ).toBe(true)
})

test('a write of our own whose answer was lost is no edit by somebody else', async () => {
  const refused = { code: 'drafting.edited-elsewhere', what: 'w', why: 'y', remedy: 'r' }
  let puts = 0
  const asked = answering(each => {
    // The database gives fields back in an order of its own.
    if (each.method === 'GET')
      return { body: { change: { ...draftOf('heron', 41), intent: { size: 4, name: 'heron' } } } }
    if (each.method === 'PUT' && ++puts === 1) return { status: 409, body: refused }
    return keeping(each)
  })
  const { user } = shown(<Form kept={draftOf('hero', 1)} />)
  await user.type(screen.getByLabelText('Name'), 'n')
  await screen.findByText('heron is free.')
  expect(screen.queryByRole('alert')).toBeNull()
  await user.click(screen.getByRole('button', { name: /Carry out/ }))
  await waitFor(() => expect(pushed).toEqual(['/changes/c1']))
  expect(asked.find(each => each.method === 'PUT' && (each.body as { edit: number }).edit === 41)).toBeTruthy()
})

test('carrying out leads to the change; a plan that has gone stale shows what is different instead', async () => {
  let isStale = true
  const stale = { code: 'changes.stale', what: 'The plan is stale.', why: 'w', remedy: 'r' }
  answering(asked => {
    if (asked.path.endsWith('/carry-out')) return isStale ? { status: 409, body: stale } : { body: {} }
    if (asked.method === 'GET')
      return { body: { change: draftOf('heron', lastEdit(), { differences: ['bulk has 1 TiB less free.'] }) } }
    return keeping(asked)
  })
  const { user } = shown(<Form />)
  await user.type(screen.getByLabelText('Name'), 'heron')
  await screen.findByText('heron is free.')
  await user.click(screen.getByRole('button', { name: /Carry out/ }))
  expect((await screen.findByRole('alert')).textContent).toContain('bulk has 1 TiB less free.')
  expect(pushed).toEqual([])
  isStale = false
  await user.click(screen.getByRole('button', { name: /Carry out/ }))
  await waitFor(() => expect(pushed).toEqual(['/changes/c1']))
})

test('a discarded draft is deleted at the server; one that was never kept is only closed', async () => {
  const asked = answering(keeping)
  const { user, unmount } = shown(<Form />, '/build?draft=name-it')
  await settled()
  await user.click(screen.getByRole('button', { name: 'Close' }))
  expect(asked.some(each => each.method === 'DELETE')).toBe(false)
  expect(pushed).toEqual(['/build'])
  await user.type(screen.getByLabelText('Name'), 'heron')
  await screen.findByText('kept as a draft')
  await user.click(screen.getByRole('button', { name: 'Discard' }))
  expect(asked.some(each => each.method === 'DELETE' && each.path === '/api/v1/changes/c1')).toBe(true)
  unmount()
  expect(asked.at(-1)?.method).toBe('DELETE')
})

test('the same intent is planned again where what it rests on has changed', async () => {
  const asked = answering(keeping)
  const { user } = shown(<Form />)
  await settled()
  await user.click(screen.getByRole('button', { name: 'Plan again' }))
  await settled()
  expect(asked.filter(each => each.path === '/api/v1/plans')).toHaveLength(2)
})
