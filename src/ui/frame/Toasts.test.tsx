/** @jest-environment jsdom */
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { toast } from '../parts/toast'
import '../testing/browser'
import { Toasts } from './Toasts'

test('what is said in passing before its part was read is shown once it has been, and put away by hand', async () => {
  render(<Toasts />)
  act(() => toast.success('curlew-2 was drained'))
  expect(await screen.findByText('curlew-2 was drained')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Put away' }))
  await waitFor(() => expect(screen.queryByText('curlew-2 was drained')).toBeNull())
})

test('of many, the latest four are shown', async () => {
  render(<Toasts />)
  act(() => ['one', 'two', 'three', 'four', 'five'].forEach(words => toast.error(words)))
  expect(await screen.findByText('five')).toBeTruthy()
  expect(screen.queryByText('one')).toBeNull()
  expect(screen.getAllByRole('button', { name: 'Put away' })).toHaveLength(4)
})
