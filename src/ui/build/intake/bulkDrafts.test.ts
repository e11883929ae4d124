import { draftAddress } from '@/core/intents'
import { sampleId } from '@/core/estate/testing/samples'
import { sampleDriveLine } from '../../testing/sampleDriveLine'
import { bulkDrafts } from './bulkDrafts'

const array = { id: sampleId(1), name: 'heron', isRow: false, clusterPoolId: null }
const bare = { ...array, isRow: true }
const cluster = { ...bare, clusterPoolId: sampleId(9) }
const free = [sampleDriveLine(1), sampleDriveLine(2)]
const wordsOf = (drafts: ReturnType<typeof bulkDrafts>) =>
  typeof drafts === 'string' ? drafts : drafts.map(each => each.words)

test('free drives begin a pool in an array, a cluster in bare nodes, and join the cluster where there is one', () => {
  expect(wordsOf(bulkDrafts(free, [array]))).toEqual(['Lights on', 'New pool'])
  expect(wordsOf(bulkDrafts(free, [bare]))).toEqual(['Lights on', 'New cluster'])
  expect(wordsOf(bulkDrafts(free, [cluster]))).toEqual(['Lights on', 'Add to the cluster'])
})

test('drives of which one is not free can only be found by their lights', () => {
  const leftOver = { system: null, lastUsedAt: null, partitions: ['p'] }
  for (const other of [{ role: 'data' as const, poolId: sampleId(9) }, { isBoot: true }, { leftOver }])
    expect(wordsOf(bulkDrafts([...free, sampleDriveLine(3, other)], [bare]))).toEqual(['Lights on'])
})

test('lights that are all on are switched off; one that is not is switched on with the others', () => {
  const lit = free.map(drive => ({ ...drive, isLit: true }))
  expect(wordsOf(bulkDrafts(lit, [array]))).toContain('Lights off')
  expect(wordsOf(bulkDrafts([...lit, sampleDriveLine(3)], [array]))).toContain('Lights on')
})

test('drives of several systems have no draft in common, and none at all neither', () => {
  const apart = [...free, sampleDriveLine(3, { systemId: sampleId(2) })]
  expect(bulkDrafts(apart, [array, { ...bare, id: sampleId(2) }])).toBe(
    'They stand in several systems; a draft is for one.',
  )
  expect(bulkDrafts([], [array])).toBe('Choose drives first.')
})

test('a draft takes the chosen drives and no others, and is edited where its kind is', () => {
  const drafts = bulkDrafts(free, [bare])
  expect(drafts).toHaveLength(2)
  if (typeof drafts === 'string') return
  for (const { intent } of drafts) expect(intent['driveIds']).toEqual(free.map(drive => drive.id))
  expect(drafts.map(each => draftAddress(each.drafted, each.intent, 'c'))).toEqual([
    `/build/drives?drive=${free[0]?.id ?? ''}&draft=set-locate-light&change=c`,
    `/build/systems/${bare.id}?draft=form-cluster&change=c`,
  ])
})
