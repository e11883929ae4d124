/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { answering, pass, shown } from '../testing/browser'
import { FailedPage } from './FailedPage'

const away = { status: 503, body: { code: 'records.away', what: 'w', why: 'y', remedy: 'r' } }
beforeEach(() => sessionStorage.clear())

test('the page is read again as soon as the records answer, and not before', async () => {
  let isAway = true
  const asked = answering(() => (isAway ? away : { body: {} }))
  const readAgain = jest.fn()
  shown(<FailedPage readAgain={readAgain} />)
  await pass(1700)
  expect(asked.map(each => each.path)).toEqual(['/api/v1/settings'])
  expect(readAgain).not.toHaveBeenCalled()
  isAway = false
  await pass(1700)
  expect(readAgain).toHaveBeenCalledTimes(1)
})

test('one who is not signed in any more is led on: a refusal is an answer', async () => {
  answering(() => ({ status: 401, body: { code: 'access.nobody', what: 'w', why: 'y', remedy: 'r' } }))
  const readAgain = jest.fn()
  shown(<FailedPage readAgain={readAgain} />)
  await pass(3200)
  expect(readAgain).toHaveBeenCalledTimes(1)
})

test('a page that fails for another reason is asked for less and less often, until somebody asks for it', async () => {
  sessionStorage.setItem('failed page', `3 ${Date.now()}`)
  answering(() => ({ body: {} }))
  const readAgain = jest.fn()
  const { user } = shown(<FailedPage readAgain={readAgain} />)
  await pass(4000)
  expect(readAgain).not.toHaveBeenCalled()
  await user.click(screen.getByRole('button', { name: 'Read it again' }))
  expect(readAgain).toHaveBeenCalledTimes(1)
})

test('failures of long ago do not count', async () => {
  sessionStorage.setItem('failed page', `9 ${Date.now() - 600_000}`)
  answering(() => ({ body: {} }))
  const readAgain = jest.fn()
  shown(<FailedPage readAgain={readAgain} />)
  await pass(3300)
  expect(readAgain).toHaveBeenCalledTimes(1)
})
