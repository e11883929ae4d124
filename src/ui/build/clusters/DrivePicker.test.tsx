/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { useState } from 'react'
import { sampleDrive, sampleId, sampleNode } from '@/core/estate/testing/samples'
import { choose, shown } from '../../testing/browser'
import { DrivePicker } from './DrivePicker'

const nodes = [1, 2].map(number => sampleNode(number))
const drives = [1, 2].flatMap(node =>
  [1, 2, 3, 4].map(bay =>
    sampleDrive(node * 10 + bay, {
      bay,
      nodeId: sampleId(node),
      ...(bay === 4 ? { capacityBytes: 800_000_000_000n } : { media: 'HDD' as const, protocol: 'SAS' as const }),
    }),
  ),
)
const suggested = Object.fromEntries(
  drives.map(drive => [
    drive.id,
    drive.bay === 4 ? { role: 'cache' as const, why: 'It is flash.' } : { role: 'capacity' as const, why: 'A disk.' },
  ]),
)
type Roles = Readonly<Record<string, 'cache' | 'capacity'>>
const now = { chosen: [] as readonly string[], roles: {} as Roles }
function Picker() {
  const [chosen, choose] = useState<readonly string[]>([])
  const [roles, setRoles] = useState<Roles>({})
  const take = (ids: readonly string[]) => choose((now.chosen = ids))
  const give = (next: Roles) => setRoles((now.roles = next))
  return (
    <DrivePicker
      nodes={nodes}
      drives={drives}
      chosen={chosen}
      choose={take}
      roles={roles}
      setRoles={give}
      suggested={suggested}
    />
  )
}
const bayOf = (id: string) => drives.find(drive => drive.id === id)?.bay

test('a kind is taken whole and given back whole', async () => {
  const { user } = shown(<Picker />)
  await user.click(screen.getByRole('button', { name: 'Take all 6' }))
  expect(now.chosen).toHaveLength(6)
  await user.click(screen.getByRole('button', { name: 'Take all 2' }))
  expect(now.chosen).toHaveLength(8)
  await user.click(screen.getAllByRole('button', { name: 'Take none' })[0] as HTMLElement)
  expect(now.chosen.map(bayOf)).toEqual([4, 4])
})

test('bays are taken by range, in one node or in all; what is no range takes nothing', async () => {
  const { user } = shown(<Picker />)
  const bays = screen.getByLabelText('bays')
  await user.type(bays, '1-2, 4')
  await user.click(screen.getByRole('button', { name: 'Take 6' }))
  expect(now.chosen.map(bayOf)).toEqual([1, 2, 4, 1, 2, 4])
  await user.clear(bays)
  await user.type(bays, '3-')
  expect(bays.getAttribute('aria-invalid')).toBe('true')
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Take' }).disabled).toBe(true)
  await choose(user, screen.getByLabelText('Nodes to choose in'), 'godwit-2')
  await user.clear(bays)
  await user.type(bays, '3')
  await user.click(screen.getByRole('button', { name: 'Take 1' }))
  expect(now.chosen).toHaveLength(7)
})

test('the suggested role stands with its reason, and is overridden for a kind or for one drive', async () => {
  const { user } = shown(<Picker />)
  const ofKind = screen.getByLabelText('Role of 800 GB NVMe')
  expect(ofKind.textContent).toBe('cache')
  expect(screen.getByText('It is flash.')).toBeTruthy()
  await choose(user, ofKind, 'capacity')
  const flash = drives.filter(drive => drive.bay === 4)
  expect(now.roles).toEqual(Object.fromEntries(flash.map(drive => [drive.id, 'capacity'])))
  await user.click(screen.getByText('One by one, as a table'))
  await choose(user, screen.getByLabelText('Role of ER14'), 'cache')
  expect(now.roles[flash[0]?.id ?? '']).toBe('cache')
  expect(screen.getByLabelText('Role of 800 GB NVMe').textContent).toBe('mixed')
})

test('one drive is taken and given back in the table', async () => {
  const { user } = shown(<Picker />)
  await user.click(screen.getByText('One by one, as a table'))
  const box = screen.getByRole('checkbox', { name: 'godwit-2, bay 3' })
  await user.click(box)
  expect(now.chosen.map(bayOf)).toEqual([3])
  await user.click(box)
  expect(now.chosen).toEqual([])
})
