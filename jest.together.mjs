import { mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import alone from './jest.config.mjs'

/*
 * All tests, many files in one go: Jest loads every module anew for each file that it is given, which took more
 * than a quarter of the processor's time for the tests of pages, and some three seconds for each file that carries changes out.
 * Here it is given some twenty suites, each of which takes the tests of several files in. A file that replaces modules, or says
 * `@alone` as it leaves one altered, stays by itself.
 */

const root = import.meta.dirname
const folder = join(root, '.built/suites')

/** Into how many suites those of a sort go: enough that all cores have some to the end, few enough that little is loaded twice. */
const sorts = [
  { name: 'changes', count: 12, takes: file => /^src\/worker\/[^/]+$/.test(file.path) },
  { name: 'pages', count: 4, takes: file => file.isInBrowser },
  { name: 'rest', count: 6, takes: () => true },
]

/** Every test file, the largest first. */
function testFiles() {
  const found = ['src', 'commands'].flatMap(top =>
    readdirSync(join(root, top), { recursive: true, encoding: 'utf8' })
      .filter(name => /\.test\.tsx?$/.test(name))
      .map(name => join(root, top, name)),
  )
  return found
    .map(path => {
      const text = readFileSync(path, 'utf8')
      return {
        path: relative(root, path),
        bytes: statSync(path).size,
        isInBrowser: text.includes('@jest-environment jsdom'),
        isAlone: /jest\.(mock|resetModules|isolateModules)\(|@alone/.test(text),
      }
    })
    .sort((a, b) => b.bytes - a.bytes || a.path.localeCompare(b.path))
}

/** What is given to Jest, each suite written: its tests stand under the name of the file that they are from. */
function suites() {
  rmSync(folder, { recursive: true, force: true })
  mkdirSync(folder, { recursive: true })
  const files = testFiles()
  const left = files.filter(each => !each.isAlone)
  const written = sorts.flatMap(({ name, count, takes }) => {
    const parts = Array.from({ length: count }, () => [])
    const own = left.filter(takes)
    for (const [index, file] of own.entries()) {
      left.splice(left.indexOf(file), 1)
      // Forth and back, so that each has large and small ones.
      const round = index % (2 * count)
      parts[round < count ? round : 2 * count - 1 - round].push(file)
    }
    return parts.map((part, index) => {
      const path = join(folder, `${name}-${index + 1}.test.js`)
      writeFileSync(path, textOf(part))
      return path
    })
  })
  return [...files.filter(each => each.isAlone).map(each => join(root, each.path)), ...written]
}

function textOf(files) {
  const described = first =>
    files.map(({ path }) => `describe('${path}', () => { ${first}require('../../${path}') })\n`)
  if (!files.some(each => each.isInBrowser)) return described('').join('')
  return [
    '/** @jest-environment jsdom */\n',
    // Its hooks hold for all: they are set where it is asked for first.
    "require('../../src/ui/testing/browser')\n",
    "const { apart } = require('../../src/ui/testing/apart')\n",
    ...described('apart(); '),
  ].join('')
}

export default async () => ({
  ...(await alone()),
  testMatch: suites(),
  testSequencer: '<rootDir>/commands/testing/longestFirst.mjs',
})
