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
