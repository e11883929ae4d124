import { todayFindings } from '.'
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
