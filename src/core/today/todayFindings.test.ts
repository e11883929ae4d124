import { todayFindings } from '.'
import type { Outlook } from '../capacity'
import type { Pool, System } from '../estate'
import type { Finding } from '../findings'

const system = { id: 's', name: 'heron', reach: 'not answering', reachWhy: 'Nothing could be reached.' } as System
const pool = {
  id: 'p',
  systemId: 's',
  name: 'bulk',
  state: 'fine',
  usableBytes: 100n,
  metadataBytes: 0n,
  snapshotReserveBytes: 0n,
  rebuildReserveBytes: 0n,
  failureDomain: null,
  writtenBytes: 91n,
  provisionedBytes: 120n,
} as Pool

test('what is silent or hurt comes before what fills up', () => {
  const found = todayFindings([system], [pool, { ...pool, name: 'fast', state: 'degraded', writtenBytes: 0n }])
  expect(found.map(finding => [finding.gravity, finding.what])).toEqual([
    ['now', 'heron does not answer'],
    ['now', 'fast is degraded'],
    ['soon', 'bulk is 91% full'],
  ])
})

test('a sound estate needs nobody', () =>
  expect(todayFindings([{ ...system, reach: 'answering' }], [{ ...pool, writtenBytes: 89n }])).toEqual([]))

test('of what is wrong in a row of nodes the causes are shown, notes are not', () => {
  const base = { check: '', evidence: '', risk: 'risk', remedy: 'mend it', offline: '', draft: null }
  const cause = { ...base, key: 'node/1', title: 'godwit-1 does not answer', gravity: 'now' as const, explainedBy: [] }
  const effect = { ...base, key: 'pool/1', title: 'kiln is degraded', gravity: 'now' as const, explainedBy: ['node/1'] }
  const note = { ...base, key: 'drive/1', title: 'left over', gravity: 'note' as const, explainedBy: [] }
  const found = [effect, cause, note].map(finding => ({ finding, systemId: 'g' }))
  expect(todayFindings([], [], found).map(each => [each.what, each.href])).toEqual([
    ['godwit-1 does not answer', '/build/systems/g'],
  ])
})

const own = { workerSilentSeconds: 3, now: new Date('2026-05-04T10:00:00Z'), unproven: [] }
const answering = { ...system, reach: 'answering' as const, seenAt: '2026-05-04T09:59:50Z' }

test('that nobody works comes first, and is not told again by every system that is not read for it', () => {
  const old = { ...answering, seenAt: '2026-05-04T08:00:00Z' }
  const found = (silent: number | undefined) =>
    todayFindings([old], [], [], { ...own, workerSilentSeconds: silent }).map(each => each.what)
  expect(found(3)).toEqual(['What is shown of heron is old'])
  expect(found(120)).toEqual(['No worker runs'])
  expect(found(undefined)).toEqual(['No worker runs'])
  expect(todayFindings([answering], [], [], own)).toEqual([])
})

test('a change that was not proven asks for somebody, with what did not hold', () => {
  const [found] = todayFindings([answering], [], [], {
    ...own,
    unproven: [{ id: 'c', title: 'Map it', why: 'Full frames did not pass.' }],
  })
  expect(found).toMatchObject({ gravity: 'now', why: 'Full frames did not pass.', href: '/changes/c' })
})

test('a system whose certificate has changed is told once, by that', () => {
  const finding = { key: 'k', check: 'certificate-changed', gravity: 'now', title: 'another certificate' } as Finding
  const found = todayFindings([system], [], [{ finding: { ...finding, explainedBy: [], draft: null }, systemId: 's' }])
  expect(found.map(each => each.what)).toEqual(['another certificate'])
})

test('a pool that is soon full is told with its day, those that never are or already are not told of twice', () => {
  const outlook = (p50: number | null, usedBytes = 50): Outlook => ({
    ...{ today: Date.UTC(2026, 10, 23), usedBytes, limitBytes: 90, fullBytes: 100, slopeBytesPerDay: 2 },
    ...{ windowDays: 28, stepAt: null, fan: [], held: 0, tried: 0 },
    reachesLimit: { p10: null, p50, p90: 10 },
    reachesFull: { p10: null, p50: null, p90: null },
  })
  const pools = ['late', 'soon', 'never', 'full', 'far'].map(id => ({ ...pool, id, name: id, writtenBytes: 50n }))
  const outlooks = new Map([
    ['late', outlook(40)],
    ['soon', outlook(23)],
    ['never', outlook(null)],
    ['full', outlook(0, 95)],
    ['far', outlook(46)],
  ])
  const found = todayFindings([], pools, [], undefined, outlooks)
  expect(found.map(({ what, href }) => [what, href])).toEqual([
    ['soon is nine tenths full in 23 days', '/watch?sel=soon'],
    ['late is nine tenths full in 40 days', '/watch?sel=late'],
  ])
  expect(found[0]?.why).toBe('It grows by 2 B a day and reaches 90 B on 16 December.')
})

test('that promises of latency are missed is one finding, which names the worst and leads to who is loud', () => {
  const worst = { id: 'v', name: 'staff-homes-01', p95Seconds: 0.0312, promisedSeconds: 0.015 }
  const found = todayFindings([answering], [], [], { ...own, slow: { count: 3, worst } })
  expect(found).toEqual([
    {
      key: 'slow',
      gravity: 'soon',
      what: 'Three volumes answer slower than promised',
      why: 'Of staff-homes-01 95 of 100 minutes of the last day stayed within 31.2 ms; 15.0 ms is promised.',
      remedy: 'See who is loud beside it.',
      href: '/watch/performance?sel=v',
    },
  ])
})
