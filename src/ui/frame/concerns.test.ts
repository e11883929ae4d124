import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { concerns } from './concerns'

const told = (of: string, topic = 'estate') => JSON.stringify({ topic, of })

test('a page hears what it shows, and nothing else of the estate', () => {
  expect(concerns('/provision', told('volumes'))).toBe(true)
  expect(concerns('/provision/volumes/x', told('snapshots'))).toBe(true)
  expect(concerns('/provision', told('drives'))).toBe(false)
  expect(concerns('/provision/hosts', told('volumes'))).toBe(false)
  expect(concerns('/build/drives', told('drives'))).toBe(true)
  expect(concerns('/account', told('systems'))).toBe(false)
})

test('what is on every page, what is not known, and what cannot be read is heard everywhere', () => {
  for (const path of ['/', '/build', '/build/systems/x', '/changes', '/account'])
    expect([concerns(path, told('c1', 'changes')), concerns(path, told('', 'back')), concerns(path, '{')]).toEqual([
      true,
      true,
      true,
    ])
  expect([
    concerns('/', told('drives')),
    concerns('/build', told('drives')),
    concerns('/provisional', told('drives')),
  ]).toEqual([true, true, true])
})

test('every table that a page listens to is one that the database tells of', () => {
  const folder = join(process.cwd(), 'src/records/migrations')
  const sql = [
    '0011-notices.sql.ts',
    '0013-snapshots.sql.ts',
    '0014-consistency-groups.sql.ts',
    '0015-metrics.sql.ts',
    '0018-paths.sql.ts',
    '0019-telling.sql.ts',
    '0020-files.sql.ts',
    '0022-directories.sql.ts',
    '0026-reviews.sql.ts',
    '0028-connection-tests.sql.ts',
    '0035-file-systems.sql.ts',
  ]
    .map(name => readFileSync(join(folder, name), 'utf8'))
    .join('\n')
  const source = readFileSync(join(process.cwd(), 'src/ui/frame/concerns.ts'), 'utf8')
  const tables = [...source.matchAll(/'([a-z_]+)'/g)].map(([, name]) => name ?? '').filter(name => name !== 'estate')
  const untold = ['host_groups', 'ports', 'switches'] // they change with systems and hosts only
  const isTold = (name: string) =>
    sql.includes(`'${name}'`) || sql.includes(`after update on ${name} `) || sql.includes(`after insert on ${name} `)
  expect(tables.filter(name => !isTold(name) && !untold.includes(name))).toEqual([])
})
