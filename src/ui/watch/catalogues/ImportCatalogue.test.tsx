/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import { answering, shown } from '../../testing/browser'
import { keeping, samplePlan } from '../../testing/samplePlan'
import { ImportCatalogue } from '.'

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
