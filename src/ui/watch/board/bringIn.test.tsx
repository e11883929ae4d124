/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import { answering, shown, wordsOf } from '../../testing/browser'
import { BringIn } from '.'

const opened = async () => {
  const { user } = shown(<BringIn />)
  await user.click(screen.getByRole('button', { name: 'Bring in older measurements' }))
  return user
}
const file = (name: string, text: string) => Object.assign(new File([text], name), { text: async () => text })

test('a file is sent as what its name says, and what was kept of it is told', async () => {
  const asked = answering(() => ({ status: 201, body: { kept: 1200, refusedCount: 0, refused: [] } }))
  const user = await opened()
  await user.upload(screen.getByLabelText('File'), file('old.csv', 'object,metric,at,value\n'))
  expect(wordsOf(await screen.findByRole('status'))).toContain('1,200 samples are kept.')
  expect(asked[0]).toMatchObject({ body: { format: 'CSV', text: 'object,metric,at,value\n' } })
  await user.upload(screen.getByLabelText('File'), file('old.jsonl', '{}'))
  await waitFor(() => expect(asked[1]).toMatchObject({ body: { format: 'JSON lines' } }))
})

test('lines that were not kept say why; a refusal says its rule', async () => {
  answering(() => ({
    status: 201,
    body: { kept: 0, refusedCount: 60, refused: [{ line: 2, why: 'It is below zero.' }] },
  }))
  const user = await opened()
  await user.upload(screen.getByLabelText('File'), file('old.csv', 'x'))
  const words = wordsOf(await screen.findByRole('status'))
  expect(words).toContain('Nothing was kept.')
  expect(words).toContain('60 lines were not kept')
  expect(words).toContain('2 It is below zero.')
  answering(() => ({
    status: 413,
    body: { code: 'api.too-long', what: 'Not read.', why: 'It is too long.', remedy: 'Split it.' },
  }))
  await user.upload(screen.getByLabelText('File'), file('old.csv', 'y'))
  expect((await screen.findByRole('alert')).textContent).toContain('It is too long.')
})
