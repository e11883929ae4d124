/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { sampleDrive, sampleId } from '@/core/estate/testing/samples'
import { answering, giveSizes, shown } from '../../testing/browser'
import { pushed } from '../../testing/navigation'
import { IntakeList } from './IntakeList'

beforeAll(() => giveSizes())

const leftOver = { system: 'plover', lastUsedAt: '2023-09-14T00:00:00.000Z', partitions: ['partition 1: boot'] }
const rows = [
  sampleDrive(1001, { role: 'data', poolId: sampleId(9) }),
  sampleDrive(1002),
  sampleDrive(1003, { leftOver }),
  sampleDrive(1004, { state: 'failed', isLit: true }),
  sampleDrive(1005, { isBoot: true }),
  sampleDrive(1006),
].map(drive => ({ drive, systemName: 'godwit', place: `godwit-1, bay ${drive.bay}`, suggestion: null }))
const systems = [{ id: sampleId(1), name: 'godwit', isRow: true, clusterPoolId: null }]
const list = <IntakeList rows={rows} systems={systems} selected={undefined} />
const labels = () => [...document.querySelectorAll('[data-row]')].map(each => each.textContent)

test('what asks for work stands first, a lit drive is marked', () => {
  shown(list)
  expect(screen.getAllByRole('img', { name: 'light on' }).map(each => each.closest('[data-row]')?.textContent)).toEqual(
    ['1004'],
  )
  expect(labels()).toEqual(['1004', '1003', '1002', '1006', '1001', '1005'])
  expect(screen.getByText('plover, 2023-09-14')).toBeTruthy()
})

test('what a partition is called is found by the filter, and so is a place', () => {
  const { unmount } = shown(list, '/build/drives?find=partition+1')
  expect(labels()).toEqual(['1003'])
  unmount()
  shown(list, '/build/drives?find=bay+1006')
  expect(labels()).toEqual(['1006'])
})

test('a drive is opened in the margin; filter and sorting stay, an earlier draft does not', async () => {
  const { user } = shown(list, '/build/drives?state=x&sort=kind&draft=erase-drive&change=c')
  await user.click(screen.getByRole('button', { name: '1002' }))
  expect(pushed).toEqual([`/build/drives?state=x&sort=kind&drive=${rows[1]?.drive.id ?? ''}`])
})

test('several drives begin one draft, which is kept before its form opens', async () => {
  const asked = answering(() => ({ status: 201, body: { id: 'c1' } }))
  const { user } = shown(list)
  await user.click(screen.getByLabelText('Choose 1002'))
  await user.click(screen.getByLabelText('Choose 1006'))
  expect(screen.getByRole('status').textContent).toBe('two drives chosen, 14.6 TiB')
  await user.click(screen.getByRole('button', { name: 'New cluster' }))
  const driveIds = [rows[1], rows[5]].map(row => row?.drive.id)
  expect(asked).toMatchObject([
    { method: 'POST', path: '/api/v1/changes', body: { kind: 'form-cluster', intent: { driveIds } } },
  ])
  expect(pushed).toEqual([`/build/systems/${sampleId(1)}?draft=form-cluster&change=c1`])
})

test('a draft that cannot be kept says why, and the choice stays', async () => {
  answering(() => 'unreachable')
  const { user } = shown(list)
  await user.click(screen.getByLabelText('Choose 1004'))
  await user.click(screen.getByRole('button', { name: 'Lights off' }))
  expect((await screen.findByRole('alert')).textContent).toContain('Wendrel does not answer.')
  expect(screen.getByRole('status').textContent).toContain('one drive chosen')
  expect(pushed).toEqual([])
})
