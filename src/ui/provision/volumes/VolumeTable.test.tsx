/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { sampleId } from '@/core/estate/testing/samples'
import type { VolumeLine } from '@/core/views'
import { answering, giveSizes, shown } from '../../testing/browser'
import { pushed } from '../../testing/navigation'
import { VolumeTable } from './VolumeTable'

beforeAll(() => giveSizes())

const line = (number: number, more: Partial<VolumeLine> = {}): VolumeLine => ({
  id: sampleId(number),
  name: `photos-0${number}`,
  naa: `6${'0'.repeat(30)}${number}`,
  systemName: 'heron',
  poolName: 'fast',
  sizeBytes: `${2n * 1024n ** 4n}`,
  writtenBytes: '0',
  isThin: true,
  state: 'in use',
  groupNames: [],
  shareNames: [],
  className: null,
  promises: null,
  application: null,
  isImage: false,
  follows: false,
  growthBytes: null,
  missingSince: null,
  ...more,
})
const rows = [line(1), line(2, { groupNames: ['desk', 'kiosk'] }), line(3, { state: 'holding', shareNames: ['scans'] })]
const table = (
  <VolumeTable first={{ total: rows.length, items: rows }} question="" selected={undefined} classes={[]} pools={[]} />
)

test('a row says who sees a volume and how it stands', () => {
  shown(table, '/provision')
  expect(screen.getByText('desk, kiosk')).toBeTruthy()
  expect(screen.getAllByText('nobody')).toHaveLength(1)
  expect(screen.getByText('share scans')).toBeTruthy()
  expect(screen.getByText('holding')).toBeTruthy()
  expect(screen.getByRole('link', { name: 'photos-01' }).getAttribute('href')).toBe(`/provision?sel=${sampleId(1)}`)
})

test('several volumes begin one draft; one in holding bars it and is named', async () => {
  const asked = answering(() => ({ status: 201, body: { id: 'c1' } }))
  const { user } = shown(table, '/provision')
  await user.click(screen.getByLabelText('Choose photos-01'))
  await user.click(screen.getByLabelText('Choose photos-03'))
  expect(screen.getByText('photos-03 is in holding; bring it back first.')).toBeTruthy()
  await user.click(screen.getByLabelText('Choose photos-03'))
  await user.click(screen.getByLabelText('Choose photos-02'))
  expect(screen.getByRole('status').textContent).toBe('two volumes chosen, 4 TiB')
  await user.click(screen.getByRole('button', { name: 'Map to a host group' }))
  const intent = { volumeIds: [sampleId(1), sampleId(2)], hostGroupId: '' }
  expect(asked).toMatchObject([{ path: '/api/v1/changes', body: { kind: 'map-volumes', intent } }])
  expect(pushed).toEqual(['/provision?draft=map-volumes&change=c1'])
})
