/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import { sampleId } from '@/core/estate/testing/samples'
import type { ToldMessage } from '@/core/views'
import { SecretField } from '../../parts/SecretField'
import { answering, shown, wordsOf } from '../../testing/browser'
import { tellingSentence, ToldMargin, ToldTable } from '.'

const told = (number: number, more: Partial<ToldMessage> = {}): ToldMessage => ({
  id: sampleId(number),
  message: {
    state: 'begun',
    gravity: 'now',
    subject: `Now: thing ${number}`,
    lines: ['Because.'],
    href: '/watch?sel=1',
    rule: 'All that is found',
    key: `k/${number}`,
  },
  routeId: sampleId(90),
  routeName: 'Night desk',
  madeAt: '2026-05-04T10:00:00.000Z',
  sentAt: null,
  tries: 0,
  nextAt: '2026-05-04T10:00:00.000Z',
  sent: null,
  answer: null,
  failedWhy: null,
  ...more,
})
const sent = { sentAt: '2026-05-04T10:00:01.000Z', nextAt: null, tries: 1, sent: 'POST /told', answer: '202' }

test('each message says how it stands: taken, on its way, tried, or given up', () => {
  const messages = [
    told(1, sent),
    told(2),
    told(3, { tries: 2, failedWhy: 'It answers 503.' }),
    told(4, { tries: 34, nextAt: null }),
  ]
  shown(<ToldTable messages={messages} selected={sampleId(2)} />, '/watch/telling')
  const rows = screen.getAllByRole('row').slice(1).map(wordsOf)
  expect(rows.map(words => /\[(\w+)\] (.*)$/.exec(words)?.slice(1))).toEqual([
    ['fine', 'taken'],
    ['note', 'on its way'],
    ['soon', 'tried 2 times'],
    ['now', 'given up'],
  ])
})

test('a message shows the bytes that left and what was answered to them', () => {
  shown(<ToldMargin told={told(1, sent)} />, '/watch/telling')
  expect(screen.getByLabelText('What was sent').textContent).toBe('POST /told')
  expect(screen.getByLabelText('What was answered').textContent).toBe('202')
  expect(screen.getByRole('link', { name: 'What it is about' }).getAttribute('href')).toBe('/watch?sel=1')
})

test('the sentence says first what was not taken', () => {
  const counts = { rules: 2, routes: 1 }
  expect(tellingSentence([], { rules: 0, routes: 0 }).first).toBe('Nobody is told of anything yet.')
  expect(tellingSentence([], counts)).toEqual({
    first: 'Nothing has been told yet.',
    then: 'Two rules tell by one route.',
  })
  expect(tellingSentence([told(1, sent)], counts).first).toBe('All messages have been taken.')
  expect(tellingSentence([told(1, { tries: 1 }), told(2, sent)], counts).first).toBe('One message has not been taken.')
})

test('a secret leaves the page when it is typed, and only its id stays in the draft', async () => {
  const asked = answering(() => ({ status: 201, body: { id: sampleId(7) } }))
  const kept: string[] = []
  const { user } = shown(
    <SecretField
      label="Key"
      hint="A hint."
      error={undefined}
      value=""
      purpose="route"
      onChange={id => kept.push(id)}
    />,
  )
  await user.type(screen.getByLabelText(/^Key/), 'a long secret')
  await user.tab()
  await waitFor(() => expect(kept).toEqual([sampleId(7)]))
  expect(asked).toEqual([
    { method: 'POST', path: '/api/v1/secrets', body: { purpose: 'route', text: 'a long secret' } },
  ])
  expect((screen.getByLabelText(/^Key/) as HTMLInputElement).value).toBe('')
})

test('a secret that could not be kept stays where it was typed, with the reason', async () => {
  answering(() => ({ status: 400, body: { code: 'api.bad-request', what: 'No.', why: 'It is too long.', remedy: '' } }))
  const { user } = shown(
    <SecretField label="Key" hint="A hint." error={undefined} value="" purpose="route" onChange={() => undefined} />,
  )
  await user.type(screen.getByLabelText(/^Key/), 'typed')
  await user.tab()
  expect(await screen.findByText('It is too long.')).toBeTruthy()
  expect((screen.getByLabelText(/^Key/) as HTMLInputElement).value).toBe('typed')
})
