import { todayFindings } from '.'
import type { Pool, System } from '../estate'

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
