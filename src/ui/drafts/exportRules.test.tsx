/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { useState } from 'react'
import type { ExportRule } from '@/core/access'
import { choose, shown } from '../testing/browser'
import { ExportRulesField } from './ExportRulesField'

const changed = jest.fn<void, [readonly ExportRule[]]>()
const last = () => changed.mock.calls.at(-1)?.[0] ?? []
function Held({ error }: { readonly error?: string }) {
  const [rules, set] = useState<readonly ExportRule[]>([])
  const change = (next: readonly ExportRule[]) => {
    changed(next)
    set(next)
  }
  return <ExportRulesField label="Export rules" value={rules} error={error} onChange={change} />
}

test('rules are added, said whom they are for and what they may, put in order and taken away', async () => {
  const { user } = shown(<Held />)
  await user.click(screen.getByRole('button', { name: 'Add a rule' }))
  await user.type(screen.getByLabelText('Host or subnet of rule 1'), '10.0.0.0/24')
  expect(screen.getByText('Decides for 254 addresses.')).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'Add a rule' }))
  await user.type(screen.getByLabelText('Host or subnet of rule 2'), '*')
  await choose(user, screen.getByLabelText('Access of rule 2'), 'read only')
  await choose(user, screen.getByLabelText('Squash of rule 2'), 'all are nobody')
  await choose(user, screen.getByLabelText('Sign-in of rule 2'), 'Kerberos, sealed')
  expect(screen.getByText('Decides for every other host.')).toBeTruthy()
  expect(last()[1]).toMatchObject({ client: '*', access: 'ro', squash: 'all', flavours: ['krb5p'] })
  await user.click(screen.getByRole('button', { name: 'Put rule 2 before the one above' }))
  expect(last().map(({ client }) => client)).toEqual(['*', '10.0.0.0/24'])
  await user.click(screen.getByRole('button', { name: 'Take rule 1 away' }))
  expect(last().map(({ client }) => client)).toEqual(['10.0.0.0/24'])
})

test('what cannot be a host or a subnet says why as it is typed', async () => {
  const { user } = shown(<Held error="Rule 1: so it is." />)
  await user.click(screen.getByRole('button', { name: 'Add a rule' }))
  await user.type(screen.getByLabelText('Host or subnet of rule 1'), '10.0.0.9/24')
  expect(screen.getByText(/the subnet is 10\.0\.0\.0\/24/)).toBeTruthy()
  expect(screen.getByLabelText('Host or subnet of rule 1').getAttribute('aria-invalid')).toBe('true')
  expect(screen.getByText('Rule 1: so it is.')).toBeTruthy()
})
