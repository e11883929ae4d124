import { EventEmitter } from 'node:events'
import { tidyAtRest } from './tidyAtRest'

beforeEach(() => jest.useFakeTimers())
afterEach(() => jest.useRealTimers())

test('it tidies up twice after the last of many requests, and again only after another', () => {
  const server = new EventEmitter()
  const tidy = jest.fn()
  tidyAtRest(server, tidy)
  jest.advanceTimersByTime(60_000)
  expect(tidy).not.toHaveBeenCalled()
  for (let asked = 0; asked < 5; asked += 1) {
    server.emit('request')
    jest.advanceTimersByTime(15_000)
  }
  expect(tidy).not.toHaveBeenCalled()
  jest.advanceTimersByTime(5000)
  expect(tidy).toHaveBeenCalledTimes(1)
  jest.advanceTimersByTime(600_000)
  expect(tidy).toHaveBeenCalledTimes(2)
  server.emit('request')
  jest.advanceTimersByTime(20_000)
  expect(tidy).toHaveBeenCalledTimes(3)
})

test('once ended it tidies up no more', () => {
  const server = new EventEmitter()
  const tidy = jest.fn()
  const end = tidyAtRest(server, tidy)
  server.emit('request')
  end()
  server.emit('request')
  jest.advanceTimersByTime(60_000)
  expect(tidy).not.toHaveBeenCalled()
  expect(server.listenerCount('request')).toBe(0)
})

test('what nobody holds is really given back', () => {
  const server = new EventEmitter()
  tidyAtRest(server)
  let held: unknown = Array.from({ length: 400_000 }, (_, index) => ({ index }))
  const before = process.memoryUsage().heapUsed
  expect(held).toHaveLength(400_000)
  held = undefined
  server.emit('request')
  jest.advanceTimersByTime(20_000)
  expect(before - process.memoryUsage().heapUsed).toBeGreaterThan(4_000_000)
  expect(held).toBeUndefined()
})
