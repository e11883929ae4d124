import { Listening } from './Listening'

/** A system of which streams are opened one after another, and ended by hand. */
function streams() {
  const opened: { readonly stop: AbortSignal; readonly end: () => void; readonly fail: () => void }[] = []
  const ending = new AbortController()
  const state = { now: 0, told: 0 }
  const listen = (stop: AbortSignal) =>
    new Promise<void>((resolve, reject) => {
      opened.push({ stop, end: resolve, fail: () => reject(new Error('It was cut off.')) })
      stop.addEventListener('abort', () => resolve(), { once: true })
    })
  const listening = new Listening(
    listen,
    () => (state.told += 1),
    ending.signal,
    () => state.now,
  )
  return { opened, ending, state, listening, settled: () => new Promise(resolve => setImmediate(resolve)) }
}

test('one stream at a time; after one has ended another is opened', async () => {
  const { opened, listening, settled } = streams()
  listening.begin()
  listening.begin()
  expect(opened).toHaveLength(1)
  opened[0]?.end()
  await settled()
  listening.begin()
  expect(opened).toHaveLength(2)
})

test('of a system that does not answer the stream is left, and nothing that becomes of the old one touches the new', async () => {
  const { opened, state, listening, settled } = streams()
  listening.begin()
  state.now = 60_000
  listening.leave()
  expect(opened[0]?.stop.aborted).toBe(true)
  listening.begin()
  await settled()
  listening.begin()
  expect(opened).toHaveLength(2)
  expect([opened[1]?.stop.aborted, state.told]).toEqual([false, 0])
  listening.leave()
  listening.leave()
})

test('the end of a stream that had stood is told, however it ended; that of one that hardly began is not', async () => {
  const { opened, state, listening, settled } = streams()
  listening.begin()
  state.now = 9_000
  opened[0]?.end()
  await settled()
  expect(state.told).toBe(0)
  listening.begin()
  state.now = 30_000
  opened[1]?.fail()
  await settled()
  expect(state.told).toBe(1)
})

test('what ends altogether opens nothing more, and tells of nothing', async () => {
  const { opened, ending, state, listening, settled } = streams()
  listening.begin()
  state.now = 60_000
  ending.abort()
  await settled()
  listening.begin()
  expect([opened.length, state.told]).toEqual([1, 0])
})
