import type { Connection } from '../Connection'
import { clockOffsets } from './clockOffsets'

const start = Date.parse('2026-03-01T10:00:00Z')

interface Clock {
  readonly id: string
  readonly servers: readonly string[]
  /** Ahead of the row's, in seconds; null where the manager does not say its time. */
  readonly ahead: number | null
}

/** A way to some managers on which each request takes so many seconds. */
function wayTo(clocks: readonly Clock[], secondsEach: number): Connection {
  let passed = 0
  const stated = ({ id, servers, ahead }: Clock) => ({
    '@odata.id': id,
    Links: { ManagerForServers: servers.map(server => ({ '@odata.id': server })) },
    ...(ahead === null ? {} : { DateTime: new Date(start + (passed + ahead) * 1000).toISOString() }),
  })
  return {
    members: () => Promise.resolve(clocks.map(stated)),
    read: (path: string) => {
      passed += secondsEach
      return Promise.resolve(clocks.filter(each => each.id === path).map(stated)[0])
    },
  } as unknown as Connection
}

const row = { id: '/m/row', servers: [], ahead: 0 }
const node = (number: number, ahead: number | null) => ({ id: `/m/${number}`, servers: [`/s/${number}`], ahead })

test('on a slow way right clocks are right, and a wrong one is found less what its reading took', async () => {
  const offsets = await clockOffsets(wayTo([row, node(1, 0), node(2, -360), node(3, 360)], 4), '/m')
  expect([...offsets]).toEqual([
    ['/s/1', 0],
    ['/s/2', -356],
    ['/s/3', 356],
  ])
})

test('a manager that does not say its time is left out, and only the nodes that were asked for are read', async () => {
  const way = wayTo([row, node(1, null), node(2, 9)], 0)
  expect([...(await clockOffsets(way, '/m'))]).toEqual([['/s/2', 9]])
  expect([...(await clockOffsets(way, '/m', ['/s/1']))]).toEqual([])
})

test('a row without a clock of its own is compared with its first node; one without managers with nothing', async () => {
  const offsets = await clockOffsets(wayTo([node(1, 5), node(2, 12)], 0), '/m')
  expect([...offsets]).toEqual([
    ['/s/1', 0],
    ['/s/2', 7],
  ])
  expect([...(await clockOffsets(wayTo([], 0), '/m'))]).toEqual([])
  expect([...(await clockOffsets(wayTo([row], 0), undefined))]).toEqual([])
})
