import { Bell } from './Bell'

const long = 60_000
const never = new AbortController().signal

test('a system that was lost while it was read is left at once, and not when its next reading would be due', async () => {
  const lost = new AbortController()
  lost.abort()
  // It would stand here for a minute.
  expect(await new Bell(1).wait(long, lost.signal)).toBe('everything')
})

test('one that is lost meanwhile is left then', async () => {
  const lost = new AbortController()
  const waiting = new Bell(1).wait(long, lost.signal)
  lost.abort()
  expect(await waiting).toBe('everything')
})

test('what rings names what it rang for, a burst once; too many names are everything', async () => {
  const bell = new Bell(1)
  const waiting = bell.wait(long, never)
  bell.rings(['/v/1'])
  bell.rings(['/v/2', '/v/1'])
  expect(await waiting).toEqual(['/v/1', '/v/2'])
  bell.rings(Array.from({ length: 9 }, (_, index) => `/v/${index}`))
  expect(await bell.wait(long, never)).toBe('everything')
})

test('what rings without a name is everything, once: afterwards it is waited again', async () => {
  const bell = new Bell(1)
  bell.rings([])
  bell.rings(['/v/1'])
  expect(await bell.wait(long, never)).toBe('everything')
  const next = bell.wait(long, never)
  const first = await Promise.race([next, new Promise(resolve => setTimeout(resolve, 600, 'nothing yet'))])
  expect(first).toBe('nothing yet')
  bell.rings(['/v/2'])
  expect(await next).toEqual(['/v/2'])
})

test('where nothing rings, everything is read when the time is over', async () => {
  expect(await new Bell(1).wait(5, never)).toBe('everything')
})
