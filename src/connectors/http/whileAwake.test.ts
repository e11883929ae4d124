import { setTimeout as pause } from 'node:timers/promises'
import { whileAwake } from './whileAwake'

const stall = (milliseconds: number) => {
  const until = performance.now() + milliseconds
  while (performance.now() < until);
}

test('a wait ends when its time has gone by', async () => {
  const { signal } = whileAwake(500)
  await pause(250)
  expect(signal.aborted).toBe(false)
  await new Promise(done => signal.addEventListener('abort', done))
  expect((signal.reason as Error).name).toBe('TimeoutError')
})

test('a process that stood still does not take it for the silence of another', async () => {
  const { signal, end } = whileAwake(1000)
  stall(1500)
  await new Promise(done => setImmediate(done))
  await pause(1)
  expect(signal.aborted).toBe(false)
  end()
})

test('a wait that is over never ends as late', async () => {
  const { signal, end } = whileAwake(250)
  end()
  await pause(600)
  expect(signal.aborted).toBe(false)
})

test('whoever stops it ends it with their reason, also where they had before it began', async () => {
  const stop = new AbortController()
  const { signal, isLate } = whileAwake(1000, stop.signal)
  stop.abort(new Error('the worker ends'))
  for (const each of [signal, whileAwake(1000, stop.signal).signal]) {
    expect(each.aborted).toBe(true)
    expect((each.reason as Error).message).toBe('the worker ends')
  }
  expect(isLate()).toBe(false)
})

test('what is stopped some day keeps nothing of the waits that are over', () => {
  const stop = new AbortController().signal
  const added = jest.spyOn(stop, 'addEventListener')
  const removed = jest.spyOn(stop, 'removeEventListener')
  const { signal, end } = whileAwake(1000, stop)
  end()
  expect(removed.mock.calls[0]?.slice(0, 2)).toEqual(added.mock.calls[0]?.slice(0, 2))
  expect(signal.aborted).toBe(false)
})
