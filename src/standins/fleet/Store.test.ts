import { appendFileSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { FleetClock, Store } from '.'

let folder: string
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'store-'))))
afterEach(() => rmSync(folder, { recursive: true }))

test('what was committed is there again, from journal and snapshot alike', () => {
  const store = new Store(folder)
  store.put('drives', 'a', { bay: 1 })
  store.snapshot()
  store.put('drives', 'b', { bay: 2 })
  store.commit([{ collection: 'drives', id: 'a', value: null }])
  const again = new Store(folder)
  expect(again.all('drives')).toEqual([{ bay: 2 }])
  expect(again.one('drives', 'a')).toBeUndefined()
})

test('a torn last line is a commit that nobody was told of: it is dropped, and what follows is kept', () => {
  new Store(folder).put('drives', 'a', { bay: 1 })
  appendFileSync(join(folder, 'journal.jsonl'), '[{"collection":"drives","id":"b","val')
  const again = new Store(folder)
  expect(again.all('drives')).toEqual([{ bay: 1 }])
  again.put('drives', 'c', { bay: 3 })
  expect(new Store(folder).all('drives')).toEqual([{ bay: 1 }, { bay: 3 }])
  expect(readFileSync(join(folder, 'journal.jsonl'), 'utf8')).not.toContain('"b"')
})

test("the fleet's time goes on from where it was, at its rate, and is stepped but never set back", () => {
  const store = new Store(folder)
  const clock = new FleetClock(store, 1000)
  const before = clock.now()
  clock.step(3600)
  expect(clock.now() - before).toBeGreaterThanOrEqual(3_600_000)
  clock.setRate(0)
  const stopped = clock.now()
  expect(clock.now()).toBe(stopped)
  expect(new FleetClock(new Store(folder), 5).rate).toBe(0)
})
