/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import type { ShownChange } from '@/core/views'
import { answering, shown } from '../testing/browser'
import { pushed } from '../testing/navigation'
import { ChangeActions } from './ChangeActions'

const change = (more: Partial<ShownChange>) => ({ id: 'c1', isStopWanted: false, ...more }) as ShownChange
const words = () => screen.queryAllByRole('button').map(button => button.textContent)
const actions = (more: Partial<ShownChange>, canReverse = false) => (
  <ChangeActions change={change(more)} draftHref={undefined} canReverse={canReverse} />
)

test.each<[ShownChange['state'], readonly string[]]>([
  ['draft', ['Carry out']],
  ['checked', ['Carry out']],
  ['running', ['Stop at the next safe point']],
  ['stopped', ['Go on', 'Undo what it has made']],
  ['proven', ['Draft the reverse', 'Draft it again']],
  ['unproven', ['Prove it again', 'Undo what it has made']],
  ['failed', ['Draft it again']],
  ['undone', ['Draft it again']],
])('a change that is %s can be moved by what that state allows and nothing else', (state, wanted) => {
  shown(actions({ state }, true))
  expect(words()).toEqual(wanted)
})

test('a change that cannot be reversed does not offer it; one that stops already is not told again', () => {
  const { unmount } = shown(actions({ state: 'proven' }))
  expect(words()).toEqual(['Draft it again'])
  unmount()
  shown(actions({ state: 'running', isStopWanted: true }))
  expect(words()).toEqual([])
  expect(screen.getByText('It stops at its next safe point.')).toBeTruthy()
})

test('an action shows the change anew, or the one that it has led to', async () => {
  const asked = answering(({ path }) => ({ body: { id: path.endsWith('reverse') ? 'c2' : 'c1' } }))
  const { user, unmount } = shown(actions({ state: 'running' }))
  await user.click(screen.getByRole('button'))
  await waitFor(() => expect(pushed).toEqual(['refreshed']))
  unmount()
  const again = shown(actions({ state: 'proven' }, true))
  await again.user.click(screen.getByRole('button', { name: 'Draft the reverse' }))
  await waitFor(() => expect(pushed).toEqual(['/changes/c2']))
  expect(asked.map(each => each.path)).toEqual(['/api/v1/changes/c1/stop', '/api/v1/changes/c1/reverse'])
  again.unmount()
  const intent = { volumeId: 'v1', name: 'reading-02' }
  const once = shown(actions({ state: 'failed', kind: 'rename-volume', intent }))
  await once.user.click(screen.getByRole('button', { name: 'Draft it again' }))
  await waitFor(() =>
    expect(asked.at(-1)).toMatchObject({ path: '/api/v1/changes', body: { kind: 'rename-volume', intent } }),
  )
})

test('an action that is refused says why, and can be tried again', async () => {
  const refusal = {
    code: 'changes.not-now',
    what: 'It cannot be stopped.',
    why: 'It has ended.',
    remedy: 'Look again.',
  }
  answering(() => ({ status: 409, body: refusal }))
  const { user } = shown(actions({ state: 'running' }))
  await user.click(screen.getByRole('button'))
  expect((await screen.findByRole('alert')).textContent).toContain('It has ended.')
  expect(screen.getByRole<HTMLButtonElement>('button').disabled).toBe(false)
})
