/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { sampleId } from '@/core/estate/testing/samples'
import { answering, giveSizes, shown } from '../../testing/browser'
import { sampleDriveLine } from '../../testing/sampleDriveLine'
import { pushed } from '../../testing/navigation'
import { IntakeList } from './IntakeList'

beforeAll(() => giveSizes())

const leftOver = { system: 'plover', lastUsedAt: '2023-09-14T00:00:00.000Z', partitions: ['partition 1: boot'] }
const rows = [
  sampleDriveLine(1001, { role: 'data', poolId: sampleId(9) }),
  sampleDriveLine(1002),
  sampleDriveLine(1003, { leftOver }),
  sampleDriveLine(1004, { state: 'failed', isLit: true }),
  sampleDriveLine(1005, { isBoot: true }),
  sampleDriveLine(1006),
]
const systems = [{ id: sampleId(1), name: 'godwit', isRow: true, clusterPoolId: null }]
const list = (
  <IntakeList first={{ total: rows.length, items: rows }} question="" systems={systems} selected={undefined} />
)
const labels = () => [...document.querySelectorAll('[data-row]')].map(each => each.textContent)

test('a row says where its drive stands, what was left on it and whether its light is on', () => {
  shown(list)
  expect(screen.getAllByRole('img', { name: 'light on' }).map(each => each.closest('[data-row]')?.textContent)).toEqual(
    ['1004'],
  )
  expect(labels()).toEqual(['1001', '1002', '1003', '1004', '1005', '1006'])
  expect(screen.getByText('plover, 2023-09-14')).toBeTruthy()
  expect(screen.getByText('godwit, godwit-1, bay 1003')).toBeTruthy()
  expect(screen.getAllByText('8 TB NVMe')).toHaveLength(6)
})

test('a drive is opened in the margin; filter and sorting stay, an earlier draft does not', () => {
  shown(list, '/build/drives?state=x&sort=kind&draft=erase-drive&change=c')
  expect(screen.getByRole('link', { name: '1002' }).getAttribute('href')).toBe(
    `/build/drives?state=x&sort=kind&drive=${rows[1]?.id ?? ''}`,
  )
})

test('several drives begin one draft, which is kept before its form opens', async () => {
  const asked = answering(() => ({ status: 201, body: { id: 'c1' } }))
  const { user } = shown(list)
  await user.click(screen.getByLabelText('Choose 1002'))
  await user.click(screen.getByLabelText('Choose 1006'))
  expect(screen.getByRole('status').textContent).toBe('two drives chosen, 14.6 TiB')
  await user.click(screen.getByRole('button', { name: 'New cluster' }))
  const driveIds = [rows[1], rows[5]].map(row => row?.id)
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
