/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import { answering, shown } from '../testing/browser'
import { keeping, samplePlan } from '../testing/samplePlan'
import { ImportCatalogue, SignException } from '.'

test('a catalogue is read from its file here, byte for byte', async () => {
  const asked = answering(keeping(samplePlan()))
  const { user } = shown(<ImportCatalogue />)
  const text = '{"format": "wendrel-firmware-catalogue-1", "maker": "Tallis & Thorne"}'
  const file = new File([text], 'catalogue.json', { type: 'application/json' })
  // jsdom has no File.text yet
  Object.assign(file, { text: () => Promise.resolve(text) })
  await user.upload(screen.getByLabelText('Catalogue file'), file)
  await waitFor(() => expect(asked.at(-1)?.body).toMatchObject({ intent: { text } }))
})

test('an exception takes its reason and its day', async () => {
  const asked = answering(keeping(samplePlan()))
  const { user } = shown(<SignException findingKey="clock-off/n" title="A clock is off" />)
  expect(screen.getByRole('heading', { name: 'Let stand: A clock is off' })).toBeTruthy()
  await user.type(screen.getByLabelText('Why it may stand'), 'The part is on its way.')
  await user.type(screen.getByLabelText('Until'), '2026-12-24')
  await waitFor(() =>
    expect(asked.at(-1)?.body).toMatchObject({
      intent: { findingKey: 'clock-off/n', reason: 'The part is on its way.', until: '2026-12-24' },
    }),
  )
  await user.click(screen.getByRole('button', { name: /Sign/ }))
  expect(asked.at(-1)?.path).toBe('/api/v1/changes/c1/carry-out')
})
