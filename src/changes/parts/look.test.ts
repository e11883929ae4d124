import { sampleRow } from '../testing/sampleRow'
import { lookInto } from './look'

test('a plan rests on what it has looked at, each once, with the revision that it saw', () => {
  const estate = sampleRow()
  const look = lookInto(estate)
  const [node] = estate.nodes
  expect(look.one('nodes', node?.id)).toBe(node)
  expect(look.one('nodes', node?.id)).toBe(node)
  expect(look.one('systems', undefined)).toBeUndefined()
  expect(look.one('systems', 'nobody')).toBeUndefined()
  const drives = estate.drives.slice(0, 2)
  const ids = drives.map(drive => drive.id)
  expect(look.some('drives', [...ids, ...ids, 'gone'])).toEqual(drives)
  expect(look.reads.map(({ kind, id, revision }) => [kind, id, revision])).toEqual([
    ['node', node?.id, node?.revision],
    ...drives.map(drive => ['drive', drive.id, drive.revision]),
  ])
  expect(look.reads.at(-1)?.name).toMatch(/^drive \w{4}$/)
})
