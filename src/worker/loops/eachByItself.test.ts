import { eachByItself } from './eachByItself'

test('what fails keeps nothing else from being done, and is told once all are done', async () => {
  const done: string[] = []
  const work = (name: string) => () => Promise.resolve(done.push(name))
  const fails = (name: string) => () => {
    done.push(name)
    return Promise.reject(new Error(name))
  }
  const thrown = () => {
    throw new Error('not even begun')
  }
  await expect(eachByItself([work('a'), fails('b'), work('c'), fails('d'), work('e')])).rejects.toThrow('b')
  expect(done).toEqual(['a', 'b', 'c', 'd', 'e'])
  await expect(eachByItself([thrown, work('f')])).rejects.toThrow('not even begun')
  await eachByItself([work('g')])
  expect(done.slice(5)).toEqual(['f', 'g'])
})

test('one after another: the next begins when the one before has ended', async () => {
  const told: string[] = []
  const slow = (name: string) => async () => {
    told.push(`${name} begins`)
    await new Promise(resolve => setTimeout(resolve, 1))
    told.push(`${name} ends`)
  }
  await eachByItself([slow('a'), slow('b')])
  expect(told).toEqual(['a begins', 'a ends', 'b begins', 'b ends'])
})
