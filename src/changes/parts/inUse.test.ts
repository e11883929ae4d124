import { sampleVolume } from '@/core/estate/testing/samples'
import { inUse } from './inUse'

const words = ({ name }: { readonly name: string }) => `${name} is in use.`

test('only a volume in use may be changed; the others say why, and what to do first', () => {
  const volume = sampleVolume({ name: 'ledger', state: 'in use' })
  expect(inUse(volume, words)).toMatchObject({ holds: true, why: 'ledger is in use.' })
  expect(inUse(undefined, words)).toMatchObject({ holds: false, level: 'must', why: 'Choose a volume.' })
  expect(inUse({ ...volume, state: 'holding' }, words)).toEqual({
    rule: 'volume',
    holds: false,
    level: 'must',
    why: 'ledger is in holding.',
    field: 'volumeId',
    remedy: 'Bring it back first.',
  })
})
