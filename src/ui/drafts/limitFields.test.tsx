/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { useState } from 'react'
import type { Share } from '@/core/estate'
import { choose, shown } from '../testing/browser'
import { FileRulesField } from './FileRulesField'
import { QuotasField } from './QuotasField'

const changed = jest.fn<void, [readonly unknown[]]>()
const last = () => changed.mock.calls.at(-1)?.[0] ?? []
const start: Share['quotas'] = [
  { path: '/people', of: 'each directory', id: null, softBytes: '19327352832', hardBytes: '21474836480', graceDays: 7 },
]

function Quotas() {
  const [quotas, set] = useState<readonly Share['quotas'][number][]>(start)
  const change = (next: typeof quotas) => {
    changed(next)
    set(next)
  }
  return <QuotasField label="Quotas" value={quotas} error={undefined} onChange={change} />
}

test('a quota shows its limits with their units, takes others, and says what is no size', async () => {
  const { user } = shown(<Quotas />)
  const hard = screen.getByLabelText<HTMLInputElement>('Hard limit of quota 1')
  expect([hard.value, screen.getByLabelText<HTMLInputElement>('Soft limit of quota 1').value]).toEqual([
    '20 GiB',
    '18 GiB',
  ])
  await user.clear(hard)
  expect(last()).toMatchObject([{ hardBytes: null }])
  await user.type(hard, '4')
  expect(screen.getByText(/Units are never guessed/)).toBeTruthy()
  await user.type(hard, ' MiB')
  expect(last()).toMatchObject([{ hardBytes: '4194304', softBytes: '19327352832' }])
  await user.clear(screen.getByLabelText('Grace of quota 1, days'))
  await user.type(screen.getByLabelText('Grace of quota 1, days'), '3')
  await user.click(screen.getByRole('button', { name: 'Add a quota' }))
  await user.clear(screen.getByLabelText('Path of quota 2'))
  await user.type(screen.getByLabelText('Path of quota 2'), '/lab')
  await choose(user, screen.getByLabelText('What quota 2 counts'), 'each user')
  expect(last()).toMatchObject([{ graceDays: 3 }, { path: '/lab', of: 'user' }])
  await user.click(screen.getByRole('button', { name: 'Take quota 1 away' }))
  expect(last()).toMatchObject([{ path: '/lab' }])
})

test('a quota counts one user by the number, or several directories together as a project', async () => {
  const { user } = shown(<Quotas />)
  await choose(user, screen.getByLabelText('What quota 1 counts'), 'one user')
  await user.clear(screen.getByLabelText('Number of the user of quota 1'))
  await user.type(screen.getByLabelText('Number of the user of quota 1'), '4021')
  expect(last()).toMatchObject([{ of: 'user', id: 4021 }])
  await choose(user, screen.getByLabelText('What quota 1 counts'), 'a project')
  await user.type(screen.getByLabelText('Project of quota 1'), 'lens plates')
  await user.type(screen.getByLabelText('Other paths of quota 1, one a line'), '/loans/lab{Enter}{Enter}/photos{Enter}')
  await user.tab()
  expect(last()).toMatchObject([
    { path: '/people', of: 'project', id: null, project: { name: 'lens plates', alsoAt: ['/loans/lab', '/photos'] } },
  ])
  await choose(user, screen.getByLabelText('What quota 1 counts'), 'all of it')
  expect(JSON.stringify(last())).not.toContain('project')
})

function Kinds() {
  const [rules, set] = useState<readonly Share['fileRules'][number][]>([])
  const change = (next: typeof rules) => {
    changed(next)
    set(next)
  }
  return <FileRulesField label="Kinds of files" value={rules} error="So it is." onChange={change} />
}

test('a kind of file is said by its name and by what is in it, and is refused or only told of', async () => {
  const { user } = shown(<Kinds />)
  await user.click(screen.getByRole('button', { name: 'Add a kind' }))
  await user.clear(screen.getByLabelText('Name of kind 1'))
  await user.type(screen.getByLabelText('Name of kind 1'), '*.mp3')
  await choose(user, screen.getByLabelText('Content of kind 1'), /audio/)
  await choose(user, screen.getByLabelText('What happens with kind 1'), 'only tell')
  expect(last()).toEqual([{ pattern: '*.mp3', content: 'audio', verdict: 'report' }])
  expect(screen.getByText('So it is.')).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'Take kind 1 away' }))
  expect(last()).toEqual([])
})
