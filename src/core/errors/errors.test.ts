import { readdirSync, readFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { refusalOf, WendrelError } from '.'

const project = resolve(__dirname, '../../..')
const sources = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap(entry =>
    entry.isDirectory()
      ? sources(join(folder, entry.name))
      : /(?<!\.test)\.tsx?$/.test(entry.name)
        ? [join(folder, entry.name)]
        : [],
  )

test('every code stands in the manual, and the manual names no code that is gone', () => {
  const text = sources(join(project, 'src'))
    .filter(path => !path.includes('standins'))
    .map(path => readFileSync(path, 'utf8'))
    .join('\n')
  const used = new Set(
    [...text.matchAll(/code = '([a-z-]+\.[a-z-]+)'|code: '([a-z-]+\.[a-z-]+)'|'((?:access|views|web)\.[a-z-]+)'/g)].map(
      match => match[1] ?? match[2] ?? match[3] ?? '',
    ),
  )
  const manual = new Set(
    [...readFileSync(join(project, 'docs/errors.md'), 'utf8').matchAll(/^\| `([^`]+)`/gm)].map(match => match[1] ?? ''),
  )
  expect([...manual].sort()).toEqual([...used].sort())
})

test('an error that is not ours is named as a fault of Wendrel', () => {
  expect(refusalOf(new TypeError('x is not a function'))).toMatchObject({
    code: 'wendrel.unexpected',
    why: 'It is described in the log of the process that met it.',
  })
  class Own extends WendrelError {
    readonly code = 'own.code'
  }
  expect(refusalOf(new Own({ what: 'a', why: 'b', remedy: 'c' }))).toEqual({
    code: 'own.code',
    what: 'a',
    why: 'b',
    remedy: 'c',
  })
})
