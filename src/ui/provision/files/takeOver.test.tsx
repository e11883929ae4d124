/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import { sampleFileService, sampleId, sampleShare } from '@/core/estate/testing/samples'
import { answering, shown, wordsOf } from '../../testing/browser'
import { TakeOver } from '.'

const service = sampleFileService({ joinedTo: 'dc=example', joinedAs: 'cn=files,dc=example' })
const element = (more: object = {}) => (
  <TakeOver service={service} shares={[sampleShare()]} hosts={[{ id: sampleId(80), name: 'scan-1' }]} {...more} />
)

test('an old name is looked up, its paths are told apart, and the steps stand in their order with the way back', async () => {
  const sights = [
    { address: '10.9.9.9', isOpen: true, milliseconds: 1, at: '2026-11-01T10:00:00.000Z' },
    { address: '10.0.0.1', isOpen: true, milliseconds: 2, at: '2026-11-01T10:05:00.000Z' },
  ]
  const asked = answering(({ path }) =>
    path.endsWith('/name-lookups')
      ? { body: { items: [{ query: 'oldfiles.example', kind: 'forward', answers: ['10.9.9.9'], why: null }] } }
      : { body: sights.shift() },
  )
  const { user, container } = shown(element())
  await user.type(screen.getByLabelText('Name of the old server'), 'OldFiles.example')
  await user.type(screen.getByLabelText('Paths that clients use there'), '/scans{Enter}/vol/one, scans{Enter}/gone')
  expect(wordsOf(container)).toContain('kept: 1, to change: 1, without a share: 1')
  await user.click(screen.getByRole('button', { name: 'Look it up' }))
  await waitFor(() => expect(screen.getByRole('status').textContent).toContain('leads to 10.9.9.9 now'))
  const words = wordsOf(container)
  expect(words.indexOf('servicePrincipalName: cifs/oldfiles.example')).toBeLessThan(
    words.indexOf('IN CNAME files.example.'),
  )
  expect(words).toContain('update delete oldfiles.example. CNAME')
  await user.click(screen.getByRole('button', { name: 'Let it look' }))
  expect(await screen.findByText('not this service')).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'Let it look' }))
  expect(await screen.findByText('this service answers')).toBeTruthy()
  expect(asked.at(-1)?.body).toEqual({ hostId: sampleId(80), server: 'oldfiles.example' })
})

test('without a name server, and with a name that leads nowhere, it is said why nothing can be taken over', async () => {
  answering(() => ({ body: { items: [] } }))
  const { user } = shown(element({ hosts: [] }))
  await user.type(screen.getByLabelText('Name of the old server'), 'old.example')
  await user.click(screen.getByRole('button', { name: 'Look it up' }))
  expect(await screen.findByText(/No name server is set/)).toBeTruthy()
  answering(() => ({ body: { items: [{ answers: [], why: 'no such record' }] } }))
  await user.click(screen.getByRole('button', { name: 'Look it up' }))
  expect(await screen.findByText(/leads nowhere now/)).toBeTruthy()
  expect(screen.queryByText(/In this order/)).toBeNull()
})
