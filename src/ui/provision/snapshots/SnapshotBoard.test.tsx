/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import { sampleClass, sampleId, sampleSnapshot } from '@/core/estate/testing/samples'
import { judged } from '@/core/snapshots'
import { answering, shown, wordsOf } from '../../testing/browser'
import { pushed } from '../../testing/navigation'
import { SnapshotBoard } from '.'
import { keptInWords, snapshotColumns } from './snapshotColumns'
import { snapshotDrafts } from './snapshotDrafts'

const gibibyte = 1024n ** 3n
const shared = (number: number, own: bigint, until: number, bytes: bigint) =>
  sampleSnapshot(number, {
    ownBytes: own * gibibyte,
    heldUntil: [
      { locator: `/v/${number}`, bytes: `${own * gibibyte}` },
      { locator: `/v/${until}`, bytes: `${bytes * gibibyte}` },
    ],
  })
const four = [shared(1, 1n, 2, 10n), shared(2, 2n, 3, 20n), shared(3, 3n, 4, 40n), sampleSnapshot(4, { heldUntil: [] })]
const around = { schedule: sampleClass(), volumes: [], mappings: [] }
const board = (snapshots = four) => (
  <SnapshotBoard volumeId={sampleId(20)} all={judged(snapshots, around)} timeZone="UTC" />
)
const column = (number: number) => screen.getByRole('option', { name: new RegExp(`photos-01.${number},`) })
const given = () => wordsOf(screen.getByText(/What they give back/).parentElement)

test('what is chosen gives back more together than each alone; a run is chosen by pointer and by keyboard', async () => {
  const { user } = shown(board())
  expect(given()).toContain('All 4 together76 GiB')
  await user.click(column(1))
  expect(given()).toContain('The chosen together1 GiB')
  await user.keyboard('{Shift>}{ArrowRight}{ArrowRight}{/Shift}')
  expect(screen.getAllByRole('option', { selected: true })).toHaveLength(3)
  expect(given()).toContain('Held by one of them only6 GiB')
  expect(given()).toContain('Held by several of them, by no other30 GiB')
  expect(given()).toContain('The chosen together36 GiB')
  await user.keyboard(' ')
  expect(screen.getAllByRole('option', { selected: true })).toHaveLength(2)
})

test('a run is chosen by pointer from where one was chosen last', async () => {
  const { user } = shown(board())
  await user.click(column(2))
  await user.keyboard('{Shift>}')
  await user.click(column(4))
  await user.keyboard('{/Shift}')
  expect(screen.getAllByRole('option', { selected: true })).toHaveLength(3)
})

test('a draft begins with those that are chosen', async () => {
  const asked = answering(() => ({ body: { id: 'c1' } }))
  const { user } = shown(board())
  await user.click(column(2))
  await user.keyboard('{ArrowRight}{Enter}')
  await user.click(screen.getByRole('button', { name: 'Remove' }))
  expect(asked.at(-1)?.body).toEqual({
    kind: 'remove-snapshots',
    intent: { volumeId: sampleId(20), snapshotIds: [sampleId(2), sampleId(3)], reason: '' },
  })
  await waitFor(() => expect(pushed.at(-1)).toBe(`/provision/volumes/${sampleId(20)}?draft=remove-snapshots&change=c1`))
})

test('a system that states only own space is told so, and sums are the least', () => {
  shown(board([sampleSnapshot(1, { ownBytes: 5n * gibibyte }), sampleSnapshot(2, { ownBytes: gibibyte })]))
  expect(given()).toContain('All 2 together, at the least6 GiB')
  expect(screen.getByText(/states each one’s own space only/)).toBeTruthy()
})

test('columns stand in order, with a note on every rule, and what keeps one besides has a lane of its own', () => {
  const held = [
    ...four,
    sampleSnapshot(5, { heldReason: 'for the audit' }),
    sampleSnapshot(6, { state: 'pending', takenAt: null }),
  ]
  const { columns, lanes, widthPixels } = snapshotColumns(judged(held, around), 764, 'UTC')
  expect(lanes.map(({ lane }) => lane)).toEqual(['daily', 'keepLast', 'besides'])
  expect(columns.map(({ notes, besidesY }) => [notes.map(({ lane }) => lane), besidesY !== null])).toEqual([
    [['daily'], false],
    [[], false],
    [[], false],
    [['keepLast'], false],
    [['keepLast'], true],
    [[], false],
  ])
  const xs = columns.map(({ x }) => x)
  expect(xs).toEqual([...xs].sort((a, b) => a - b))
  expect(widthPixels).toBe(764)
  const many = judged(
    Array.from({ length: 400 }, (_, index) => sampleSnapshot(index)),
    around,
  )
  expect(snapshotColumns(many, 764, 'UTC').widthPixels).toBeGreaterThan(4000)
  expect(snapshotColumns([], 764, 'UTC').columns).toEqual([])
})

test.each([
  [{}, 'no rule: it goes with the next look'],
  [{ dueAt: null }, 'whoever took it: no rule removes it'],
  [{ goesAt: '2026-05-09T00:00:00.000Z' }, 'nothing: it goes 2026-05-09 00:00 UTC'],
  [{ heldReason: 'for the audit' }, 'held: for the audit'],
])('what keeps a snapshot is said: %j', (more, words) => {
  expect(keptInWords({ snapshot: sampleSnapshot(1, more), rules: [], clones: [], shownTo: [] })).toBe(words)
})

test('what can be drafted follows from what is chosen', () => {
  const words = (chosen: Parameters<typeof snapshotDrafts>[1]) => {
    const drafts = snapshotDrafts(sampleId(20), chosen)
    return typeof drafts === 'string' ? drafts : drafts.map(each => each.words)
  }
  const going = sampleSnapshot(8, { goesAt: '2026-05-09T00:00:00.000Z' })
  expect(words([])).toContain('Choose snapshots')
  expect(words([sampleSnapshot(1)])).toEqual(['Clone', 'Go back to it', 'Show to hosts', 'Hold', 'Remove'])
  expect(words([sampleSnapshot(1, { heldReason: 'audit' })])).toContain('Release')
  expect(words([sampleSnapshot(1), sampleSnapshot(2)])).toEqual(['Remove'])
  expect(words([going])).toEqual(['Bring back'])
  expect(words([going, sampleSnapshot(1)])).toContain('others are not')
})
