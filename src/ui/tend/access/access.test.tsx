/** @jest-environment jsdom */
import { screen, waitFor, within } from '@testing-library/react'
import type { AuditEntry } from '@/core/views'
import { answering, shown } from '../../testing/browser'
import { pushed } from '../../testing/navigation'
import { Account, AuditTable, SignInForm, WelcomeForm } from '.'

const at = '2026-11-25T10:00:00.000Z'
const refusal = { code: 'access.wrong', what: 'It was refused.', why: 'It is wrong.', remedy: 'Try again.' }
const settings = { volumeNaming: '{group}-{nn}', holdingDays: 7, nameServer: '', addresses: '' }
const own = { id: 'a1', name: 'keeper' }
const account = (more: Partial<Parameters<typeof Account>[0]> = {}) => (
  <Account
    own={own}
    administrators={[
      { ...own, madeAt: at },
      { id: 'a2', name: 'mara', madeAt: at },
    ]}
    tokens={[{ id: 't1', name: 'nightly', madeAt: at, usedAt: null }]}
    settings={settings}
    {...more}
  />
)
const section = (name: string) => within(screen.getByRole('region', { name }))

test('an administrator is added once all rules of the password are met, and the fields are blank again', async () => {
  const asked = answering(() => ({ status: 204 }))
  const { user } = shown(account())
  const add = section('Administrators')
  await user.type(add.getByLabelText('Add an administrator'), 'juno')
  await user.type(add.getByLabelText('First password'), 'junojunojuno')
  expect(add.getByText('Does not hold your name').textContent).toContain('not met yet')
  expect(add.getByRole<HTMLButtonElement>('button', { name: 'Add' }).disabled).toBe(true)
  await user.clear(add.getByLabelText('First password'))
  await user.type(add.getByLabelText('First password'), 'plover-egg-42')
  await user.click(add.getByRole('button', { name: 'Add' }))
  expect(asked).toEqual([
    { method: 'POST', path: '/api/v1/administrators', body: { name: 'juno', password: 'plover-egg-42' } },
  ])
  await waitFor(() => expect(pushed).toEqual(['refreshed']))
})

test('a refusal is told, and what was typed stays', async () => {
  answering(() => ({ status: 422, body: refusal }))
  const { user } = shown(account())
  const add = section('Administrators')
  await user.type(add.getByLabelText('Add an administrator'), 'mara')
  await user.type(add.getByLabelText('First password'), 'plover-egg-42')
  await user.click(add.getByRole('button', { name: 'Add' }))
  expect((await add.findByRole('alert')).textContent).toContain('It is wrong.')
  expect(add.getByLabelText<HTMLInputElement>('Add an administrator').value).toBe('mara')
  expect(pushed).toEqual([])
})

test('an administrator is removed by id; the last one stays', async () => {
  const asked = answering(() => ({ status: 204 }))
  const { user, unmount } = shown(account())
  const row = within(screen.getByText('mara').closest('tr') as HTMLElement)
  await user.click(row.getByRole('button', { name: 'Remove' }))
  expect(asked).toEqual([{ method: 'DELETE', path: '/api/v1/administrators/a2', body: undefined }])
  unmount()
  shown(account({ administrators: [{ ...own, madeAt: at }] }))
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Remove' }).disabled).toBe(true)
})

test('a token is shown once, when it is made, and can be withdrawn', async () => {
  const asked = answering(({ method }) => (method === 'POST' ? { body: { token: 'wt_once' } } : { status: 204 }))
  const { user } = shown(account())
  const tokens = section('Bearer tokens')
  expect(tokens.getByText('never used')).toBeTruthy()
  expect(tokens.getByRole<HTMLButtonElement>('button', { name: 'Make a token' }).disabled).toBe(true)
  await user.type(tokens.getByLabelText('What it is for'), 'reports')
  await user.click(tokens.getByRole('button', { name: 'Make a token' }))
  expect(await tokens.findByText(/wt_once/)).toBeTruthy()
  await user.click(tokens.getByRole('button', { name: 'Withdraw' }))
  expect(asked.map(({ method, path }) => `${method} ${path}`)).toEqual([
    'POST /api/v1/tokens',
    'DELETE /api/v1/tokens/t1',
  ])
})

test('settings go to the server as one', async () => {
  const asked = answering(() => ({ body: settings }))
  const { user } = shown(account())
  const form = section('Settings of the estate')
  await user.clear(form.getByLabelText('Days in holding'))
  await user.type(form.getByLabelText('Days in holding'), '30')
  await user.type(form.getByLabelText('Name server'), '10.20.0.53:53')
  await user.click(form.getByRole('button', { name: 'Keep' }))
  expect(asked).toEqual([
    {
      method: 'PUT',
      path: '/api/v1/settings',
      body: { ...settings, holdingDays: 30, nameServer: '10.20.0.53:53' },
    },
  ])
})

test('the own password is changed with the present one, and only when both new ones are the same', async () => {
  const asked = answering(({ body }) =>
    (body as { current: string }).current === 'right' ? { status: 204 } : { status: 403, body: refusal },
  )
  const { user } = shown(account())
  const form = section('Your password')
  const button = form.getByRole<HTMLButtonElement>('button', { name: 'Change it' })
  await user.type(form.getByLabelText('Present password'), 'wrong')
  await user.type(form.getByLabelText('New password'), 'plover-egg-43')
  await user.type(form.getByLabelText('New password again'), 'plover-egg-44')
  expect(button.disabled).toBe(true)
  await user.type(form.getByLabelText('New password again'), '{Backspace}3')
  await user.click(button)
  expect((await form.findByRole('alert')).textContent).toContain('It was refused.')
  expect(form.getByLabelText<HTMLInputElement>('New password').value).toBe('plover-egg-43')
  await user.clear(form.getByLabelText('Present password'))
  await user.type(form.getByLabelText('Present password'), 'right')
  await user.click(button)
  expect(await form.findByText('Your password is changed.')).toBeTruthy()
  expect(form.getByLabelText<HTMLInputElement>('New password').value).toBe('')
  expect(asked.at(-1)).toMatchObject({ path: '/api/v1/password', body: { current: 'right', wanted: 'plover-egg-43' } })
})

test('who fails to sign in is told why, and what was typed stays', async () => {
  const asked = answering(() => ({ status: 401, body: refusal }))
  const { user } = shown(<SignInForm />, '/sign-in?to=%2Fprovision')
  await user.type(screen.getByLabelText('Your name'), 'keeper')
  await user.type(screen.getByLabelText('Password'), 'guess')
  await user.click(screen.getByRole('button', { name: 'Sign in' }))
  expect((await screen.findByRole('alert')).textContent).toContain('Try again.')
  expect(asked).toEqual([{ method: 'POST', path: '/api/v1/session', body: { name: 'keeper', password: 'guess' } }])
  expect(screen.getByLabelText<HTMLInputElement>('Your name').value).toBe('keeper')
})

test('the first administrator needs the code, and is asked for it only where the address has none', async () => {
  const asked = answering(() => ({ status: 403, body: refusal }))
  const { user, unmount } = shown(<WelcomeForm code="" />)
  const begin = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Begin' })
  await user.type(screen.getByLabelText('Your name'), 'keeper')
  await user.type(screen.getByLabelText('Password'), 'plover-egg-42')
  await user.type(screen.getByLabelText('Password again'), 'plover-egg-42')
  expect(begin().disabled).toBe(true)
  await user.type(screen.getByLabelText('Code'), 'AB12')
  await user.click(begin())
  expect(asked.at(-1)?.body).toEqual({ code: 'AB12', name: 'keeper', password: 'plover-egg-42' })
  expect(await screen.findByRole('alert')).toBeTruthy()
  unmount()
  shown(<WelcomeForm code="AB12" />)
  expect(screen.queryByLabelText('Code')).toBeNull()
})

const entry = (more: Partial<AuditEntry>): AuditEntry => ({
  id: 7,
  previousHash: '',
  hash: 'h',
  at,
  who: 'keeper',
  address: '10.0.0.9',
  action: 'token.withdrawn',
  subject: 'token 0190',
  detail: '{}',
  ...more,
})

test('the record says in words what was done, and leads to the change that it was done to', () => {
  const hostile = '<img src=x onerror=alert(1)>'
  shown(
    <AuditTable
      entries={[
        entry({
          id: 9,
          action: 'change.carried-out',
          subject: 'change c1',
          detail: '{"title":"Provision a volume"}',
        }),
        entry({ id: 8, action: 'session.refused', subject: 'session s1', who: hostile, detail: '{"why":""}' }),
        entry({ address: null, detail: '{"name":"nightly","uses":3}' }),
      ]}
    />,
  )
  const [first, second, third] = screen.getAllByRole('row').slice(1)
  expect(first?.textContent).toContain('carried outProvision a volume')
  expect(
    within(first as HTMLElement)
      .getByRole('link')
      .getAttribute('href'),
  ).toBe('/changes/c1')
  expect(second?.textContent).toContain(`${hostile}10.0.0.9failed to sign inwhy: nothing`)
  expect(document.querySelector('img')).toBeNull()
  expect(third?.textContent).toContain('—token withdrawn0190, name: nightly, uses: 3')
})
