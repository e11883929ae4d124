import { Memory, remembered } from './memory'
import type { Scope } from './Scope'

const scopeOf = (memory: Memory) => ({ memory }) as unknown as Scope

test('the same is read once until it is forgotten, by however many at once', async () => {
  const memory = new Memory(() => true)
  let count = 0
  const read = () => remembered(scopeOf(memory), 'pools', async () => (count += 1))
  expect(await Promise.all([read(), read(), read()])).toEqual([1, 1, 1])
  memory.forget()
  expect(await read()).toBe(2)
})

test('what is forgotten while it is being read is read again', async () => {
  const memory = new Memory(() => true)
  let answer = (_: string) => undefined as void
  const first = memory.of('pools', () => new Promise<string>(done => (answer = done)))
  memory.forget()
  answer('before the change')
  expect(await first).toBe('before the change')
  expect(await memory.of('pools', async () => 'after it')).toBe('after it')
})

test('a reading that fails is kept for nobody', async () => {
  const memory = new Memory(() => true)
  await expect(memory.of('pools', () => Promise.reject(new Error('away')))).rejects.toThrow('away')
  expect(await memory.of('pools', async () => 'back')).toBe('back')
})

test('nothing is remembered while nobody listens, nor within a transaction', async () => {
  let isTold = false
  const memory = new Memory(() => isTold)
  let count = 0
  const read = async () => (count += 1)
  await memory.of('pools', read)
  expect(await memory.of('pools', read)).toBe(2)
  isTold = true
  const inTransaction = { memory, transaction: {} } as unknown as Scope
  await remembered(inTransaction, 'pools', read)
  expect(await remembered(inTransaction, 'pools', read)).toBe(4)
})

test('whoever remembers what follows from the records is told to forget with them', () => {
  const memory = new Memory(() => true)
  const forgot = jest.fn()
  memory.onForget(forgot)
  memory.forget()
  expect(forgot).toHaveBeenCalledTimes(1)
})
