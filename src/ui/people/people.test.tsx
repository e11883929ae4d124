/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import { useState } from 'react'
import {
  sampleFileService,
  sampleGroup,
  sampleId,
  samplePrincipal,
  sampleShare,
  sampleSystem,
  sampleVolume,
} from '@/core/estate/testing/samples'
import type { ShareGrant } from '@/core/access'
import type { SharePage } from '@/core/views'
import { CertificateField, GrantsField, PersonField } from '../drafts/peopleFields'
import { WhoCan } from '../provision/files'
import { answering, choose, shown, wordsOf } from '../testing/browser'
import { pushed } from '../testing/navigation'

const people = [
  samplePrincipal(),
  sampleGroup(),
  samplePrincipal({ id: sampleId(92), durableId: 'gone', name: 'Alva Gone', goneSince: '2026-01-01T00:00:00.000Z' }),
]
/** A directory with a person, a group, and somebody who is gone. */
const directory = () =>
  answering(({ path }) =>
    path.includes(`/principals/${sampleId(90)}`)
      ? { body: { person: people[0], groups: [people[1]] } }
      : path.includes('/principals?')
        ? { body: { items: people, total: 3, names: {} } }
        : { body: { id: sampleId(99) } },
  )

test('a grant is for a person or a group, found by a part of the name; each once, and never for who is gone', async () => {
  directory()
  let kept: readonly ShareGrant[] = []
  function Held() {
    const [grants, set] = useState<readonly ShareGrant[]>([])
    kept = grants
    return <GrantsField label="Grants" value={grants} error={undefined} onChange={set} />
  }
  const { user } = shown(<Held />)
  await user.type(screen.getByLabelText('Grant somebody'), 'a')
  await user.click(await screen.findByRole('button', { name: /studio/ }))
  await choose(user, screen.getByRole('combobox', { name: 'Right of studio' }), 'read')
  await user.type(screen.getByLabelText('Grant somebody'), 'a')
  expect(screen.queryByRole('button', { name: /Alva Gone/ })).toBeNull()
  await user.click(await screen.findByRole('button', { name: /studio group/ }))
  await user.click(screen.getByRole('button', { name: 'Grant everybody who signs in' }))
  expect(kept).toEqual([
    { who: 'studio', name: 'studio', right: 'read' },
    { who: '*', name: 'everybody', right: 'change' },
  ])
  await user.click(screen.getByRole('button', { name: 'Take the grant of studio away' }))
  expect(kept).toHaveLength(1)
})

test('a person is chosen by name and taken back; nobody by that name is said', async () => {
  directory()
  function Held() {
    const [id, set] = useState('')
    return <PersonField label="As a person" hint="Or by numbers" value={id} error={undefined} onChange={set} />
  }
  const { user } = shown(<Held />)
  await user.type(screen.getByLabelText('As a person'), 'bren')
  await user.click(await screen.findByRole('button', { name: /Alva Brenn/ }))
  expect(await screen.findByText('Alva Brenn')).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'Not as Alva Brenn' }))
  answering(() => ({ body: { items: [], total: 0, names: {} } }))
  await user.type(screen.getByLabelText('As a person'), 'zz')
  expect(await screen.findByText('No directory has anybody by that name.')).toBeTruthy()
})

test('who answers as a directory is seen first, and exactly that certificate is accepted; what fails is told', async () => {
  const seen = { fingerprint: 'AB:CD', certificateTrouble: 'SELF_SIGNED', baseDns: ['dc=example'], maker: 'Quillstone' }
  const asked = answering(() => ({ body: seen }))
  const accepted: unknown[] = []
  const field = (address: string) => (
    <CertificateField
      {...{ label: 'Certificate', hint: '', error: undefined, value: '', address }}
      onChange={() => undefined}
      onAccept={(...all) => accepted.push(all)}
    />
  )
  const { user, rerender } = shown(field(''))
  expect(screen.getByRole('button', { name: 'See who answers there' }).hasAttribute('disabled')).toBe(true)
  rerender(field('ldaps://directory.example'))
  await user.click(screen.getByRole('button', { name: 'See who answers there' }))
  expect(await screen.findByText(/no known authority has signed/)).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'Accept exactly this one' }))
  expect([asked[0]?.body, accepted]).toEqual([{ address: 'ldaps://directory.example' }, [['AB:CD', 'dc=example']]])
  answering(() => ({ status: 502, body: { code: 'x', what: 'It does not answer.', why: 'It is down.', remedy: '' } }))
  await user.click(screen.getByRole('button', { name: 'See who answers there' }))
  expect(await screen.findByText('It does not answer. It is down.')).toBeTruthy()
})

const page = (more: Partial<SharePage['share']> = {}): SharePage => ({
  share: sampleShare({
    protocols: ['NFSv4_2', 'SMBv3_1_1'],
    grants: [{ who: 'studio', name: 'studio', right: 'read' }],
    ...more,
  }),
  ...{ missingSince: null, service: sampleFileService({ joinedTo: 'dc=example' }), volume: sampleVolume() },
  ...{ system: sampleSystem(), hosts: [], hostCount: 0, changes: [] },
})

test('over SMB somebody is asked for by name: each gate, and what would turn it, becomes a draft', async () => {
  const asked = directory()
  const { user, container } = shown(<WhoCan page={page({ ownerGid: 3100 })} />)
  await user.click(screen.getByRole('radio', { name: 'SMB' }))
  expect(screen.getByText(/over SMB people sign in by name/)).toBeTruthy()
  await user.type(screen.getByLabelText('Who'), 'alva')
  await user.click(await screen.findByRole('button', { name: /Alva Brenn/ }))
  await waitFor(() => expect(wordsOf(container)).toContain('No. Share grant: studio: only reads.'))
  await user.click(screen.getByRole('button', { name: 'Grant Alva Brenn: change' }))
  await waitFor(() => expect(pushed.at(-1)).toContain('draft=set-share-rights'))
  expect(asked.at(-1)?.body).toMatchObject({
    kind: 'set-share-rights',
    intent: { mode: '2770', grants: [{ who: 'studio' }, { who: 'me', name: 'Alva Brenn', right: 'change' }] },
  })
})

test('over NFS a person counts by the numbers that the directory has', async () => {
  directory()
  const { user, container } = shown(<WhoCan page={page()} />)
  await user.type(screen.getByLabelText('Who'), 'alva')
  await user.click(await screen.findByRole('button', { name: /Alva Brenn/ }))
  await waitFor(() => expect(wordsOf(container)).toContain('Counts as uid 20001, gid 3101, groups 3100.'))
})
