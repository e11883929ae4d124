/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { useState } from 'react'
import type { AccessEntry } from '@/core/access'
import { choose, shown } from '../testing/browser'
import { AccessListField } from './AccessListField'

const changed = jest.fn<void, [readonly AccessEntry[]]>()
const last = () => changed.mock.calls.at(-1)?.[0] ?? []
function Held({ error }: { readonly error?: string }) {
  const [acl, set] = useState<readonly AccessEntry[]>([])
  const change = (next: readonly AccessEntry[]) => {
    changed(next)
    set(next)
  }
  return <AccessListField label="Access list" value={acl} error={error} onChange={change} />
}

test('entries are added, said whom they are for and what they do, put in order and taken away', async () => {
  const { user } = shown(<Held />)
  expect(screen.getByText('None: the mode counts.')).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'Add an entry' }))
  await user.click(screen.getByRole('button', { name: 'Add an entry' }))
  await choose(user, screen.getByLabelText('Whom entry 2 is for'), 'gid …')
  await choose(user, screen.getByLabelText('What entry 2 does'), 'may not')
  await choose(user, screen.getByLabelText('What entry 2 is about'), 'write')
  await user.type(screen.getByLabelText('gid of entry 2'), '3100')
  expect(last()).toEqual([
    { kind: 'allow', who: 'OWNER@', may: 'both' },
    { kind: 'deny', who: 'gid:3100', may: 'write' },
  ])
  await user.click(screen.getByRole('checkbox', { name: /also for what is made in it.*entry 2/ }))
  expect(last().map(({ isInherited }) => isInherited === true)).toEqual([false, true])
  await user.click(screen.getByRole('button', { name: 'Put entry 2 before the one above' }))
  expect(last().map(({ who }) => who)).toEqual(['gid:3100', 'OWNER@'])
  await user.click(screen.getByRole('button', { name: 'Take entry 1 away' }))
  expect(last().map(({ who }) => who)).toEqual(['OWNER@'])
})

test('a number that is none, and an entry that decides for nobody, say so as they are typed', async () => {
  const { user } = shown(<Held error="Entry 1: so it is." />)
  await user.click(screen.getByRole('button', { name: 'Add an entry' }))
  await choose(user, screen.getByLabelText('Whom entry 1 is for'), 'uid …')
  await user.type(screen.getByLabelText('uid of entry 1'), '99x')
  expect(screen.getByLabelText('uid of entry 1').getAttribute('aria-invalid')).toBe('true')
  expect(screen.getByText(/Give a uid: a whole number/)).toBeTruthy()
  expect(screen.getByText('Entry 1: so it is.')).toBeTruthy()
  await choose(user, screen.getByLabelText('Whom entry 1 is for'), 'everyone')
  await user.click(screen.getByRole('button', { name: 'Add an entry' }))
  expect(screen.getByText(/It decides for nobody/)).toBeTruthy()
})
