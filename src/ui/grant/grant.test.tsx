/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { sampleFileService, sampleId, sampleShare } from '@/core/estate/testing/samples'
import type { GrantPage } from '@/core/views'
import { shown, wordsOf } from '../testing/browser'
import { WhoCanMatrix } from '.'

const host = (number: number, name: string, address: string) => ({
  id: sampleId(number),
  name,
  addresses: [address],
  agentAddress: null,
})
const page = (more: Partial<GrantPage> = {}): GrantPage => ({
  shares: [sampleShare(), sampleShare({ id: sampleId(72), name: 'photos', mode: '0777' })],
  shareCount: 2,
  services: [sampleFileService()],
  hosts: [host(80, 'scan-1', '10.0.1.7'), host(81, 'desk-1', '10.0.1.8'), host(82, 'far-1', '192.0.2.9')],
  hostCount: 5,
  ...more,
})

test('each way is marked with what somebody may, and the one that is chosen says why', async () => {
  const { user, container } = shown(<WhoCanMatrix page={page()} />)
  expect(screen.getByRole('button', { name: 'scan-1, scans: refused' })).toBeTruthy()
  expect(screen.getByRole('button', { name: 'scan-1, photos: may change' })).toBeTruthy()
  expect(screen.getByRole('button', { name: 'desk-1, photos: may read' })).toBeTruthy()
  expect(wordsOf(container)).toContain('uid 1000 may change by one way, and read by one way.')
  expect(wordsOf(container)).toContain('Two hosts are left out.')
  await user.click(screen.getByRole('button', { name: 'desk-1, photos: may read' }))
  expect(screen.getByText('May read. A write is refused.')).toBeTruthy()
  await user.clear(screen.getByLabelText('uid'))
  await user.type(screen.getByLabelText('uid'), '2001')
  expect(screen.getByRole('button', { name: 'scan-1, scans: may change' })).toBeTruthy()
})

test('hosts are left out that are alike, or from which nothing is let', async () => {
  const { user } = shown(<WhoCanMatrix page={page()} />)
  await user.click(screen.getByRole('radio', { name: 'where allowed' }))
  expect(screen.queryByText('far-1')).toBeNull()
  await user.click(screen.getByRole('radio', { name: 'that differ' }))
  expect(screen.queryByText('far-1')).toBeNull()
  expect(screen.getByText('scan-1')).toBeTruthy()
})

test('an estate without shares says so', () => {
  const { container } = shown(<WhoCanMatrix page={page({ shares: [], shareCount: 0, hosts: [], hostCount: 0 })} />)
  expect(wordsOf(container)).toContain('No share is there yet.')
})
