/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import { answering, shown } from '../../testing/browser'
import { pushed } from '../../testing/navigation'
import { RoundDone, SinceRound } from '.'

const since = {
  round: { id: 'r', at: new Date(Date.now() - 7_200_000).toISOString(), madeBy: 'keeper', note: 'Mind <b>bay 5</b>.' },
  proven: 2,
  unproven: 0,
  stopped: 0,
  newFindings: 1,
  clearedFindings: 0,
  writtenBytes: 0n,
}

test('what is new since the last round stands with who did it and what they left to say, as text', () => {
  const { container } = shown(<SinceRound since={since} />)
  expect(container.textContent).toContain('one finding is new and two changes were carried out and proven')
  expect(screen.getByText('“Mind <b>bay 5</b>.”')).toBeTruthy()
  shown(<SinceRound since={{ ...since, proven: 0, newFindings: 0 }} />)
  expect(screen.getByText(/nothing has become otherwise/)).toBeTruthy()
})

test('a round is noted with its note; one that could not be noted keeps what was typed', async () => {
  let tries = 0
  const asked = answering(() => {
    tries += 1
    return tries === 1 ? 'unreachable' : { status: 201, body: {} }
  })
  const { user } = shown(<RoundDone />)
  await user.click(screen.getByRole('button', { name: 'Round done' }))
  const note = await screen.findByLabelText<HTMLTextAreaElement>('Note')
  await user.type(note, 'All quiet.')
  await user.click(screen.getByRole('button', { name: 'Note it' }))
  expect(await screen.findByText('Wendrel does not answer.')).toBeTruthy()
  expect(note.value).toBe('All quiet.')
  await user.click(screen.getByRole('button', { name: 'Note it' }))
  await waitFor(() => expect(screen.queryByLabelText('Note')).toBeNull())
  expect(asked.at(-1)).toMatchObject({ method: 'POST', path: '/api/v1/rounds', body: { note: 'All quiet.' } })
  expect(pushed).toContain('refreshed')
})
