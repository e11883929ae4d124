/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import { reviewLines, type ReviewedLine } from '@/core/access'
import { sampleId, sampleShare } from '@/core/estate/testing/samples'
import type { Review, ReviewPage } from '@/core/views'
import { answering, shown, wordsOf } from '../testing/browser'
import { pushed } from '../testing/navigation'
import { ReviewMargin, ReviewSentence, ReviewSheet, ReviewTable } from '.'

const share = sampleShare({
  grants: [
    { who: 'studio', name: 'studio', right: 'change' },
    { who: '*', name: '', right: 'read' },
  ],
  rules: [],
})
const lines = reviewLines(share)
const review = (verdict: (line: ReviewedLine['key']) => 'stays' | 'goes', more: Partial<Review> = {}): Review => ({
  ...{ id: sampleId(1), shareId: share.id, at: new Date(Date.now() - 3_600_000).toISOString(), madeBy: 'keeper' },
  ...{ note: '', lines: lines.map(line => ({ ...line, verdict: verdict(line.key) })), ...more },
})
const page = (more: Partial<ReviewPage> = {}): ReviewPage => ({
  ...{ share, lines, reviews: [] },
  behind: [{ who: 'studio', people: 14, names: ['Alva Brenn', 'Quill Holt'] }],
  ...more,
})

test('a review can be kept once every right is decided, and sends what was seen', async () => {
  const asked = answering(() => ({ status: 201, body: {} }))
  const { user } = shown(<ReviewSheet page={page()} />)
  const keep = screen.getByRole<HTMLButtonElement>('button', { name: 'Keep the review' })
  expect(screen.getByText('14 people: Alva Brenn, Quill Holt and 12 more')).toBeTruthy()
  expect(screen.getByText('nobody that a directory knows and lets sign in')).toBeTruthy()
  expect([keep.disabled, wordsOf(document.body)]).toEqual([true, expect.stringContaining('two rights are still')])
  const [studioGoes] = screen.getAllByRole('radio', { name: 'goes' })
  const [, everybodyStays] = screen.getAllByRole('radio', { name: 'stays' })
  if (studioGoes !== undefined) await user.click(studioGoes)
  if (everybodyStays !== undefined) await user.click(everybodyStays)
  await user.type(screen.getByLabelText('Note'), 'They have moved out.')
  await user.click(keep)
  await waitFor(() => expect(asked).toHaveLength(1))
  expect(asked[0]).toMatchObject({
    path: expect.stringContaining(`/shares/${share.id}/reviews`),
    body: {
      note: 'They have moved out.',
      verdicts: { 'grant change studio': 'goes', 'grant read *': 'stays' },
    },
  })
})

test('one that was refused keeps what was decided, with the rule', async () => {
  const refusal = {
    code: 'review.share-changed',
    what: 'Not kept.',
    why: 'Its rights have been changed.',
    remedy: 'Look.',
  }
  answering(() => ({ status: 409, body: refusal }))
  const { user } = shown(<ReviewSheet page={page({ lines: lines.slice(0, 1) })} />)
  await user.click(screen.getByRole('radio', { name: 'stays' }))
  await user.click(screen.getByRole('button', { name: 'Keep the review' }))
  expect(await screen.findByText(/Its rights have been changed/)).toBeTruthy()
  expect(screen.getByRole('radio', { name: 'stays' }).getAttribute('aria-checked')).toBe('true')
})

test('what should have gone and is still there is drafted away, with all else as it stands', async () => {
  const asked = answering(() => ({ status: 201, body: { id: sampleId(40) } }))
  const reviews = [review(key => (key === 'grant change studio' ? 'goes' : 'stays')), review(() => 'stays')]
  const { user } = shown(<ReviewMargin page={page({ reviews })} />)
  expect(wordsOf(document.body)).toContain('Should go, and is still there')
  await user.click(screen.getByRole('button', { name: 'Draft it away' }))
  await waitFor(() => expect(pushed).toHaveLength(1))
  expect(asked[0]).toMatchObject({
    body: {
      kind: 'set-share-rights',
      intent: { shareId: share.id, mode: share.mode, grants: [{ who: '*', name: '', right: 'read' }], rules: [] },
    },
  })
  expect(pushed[0]).toContain(`draft=set-share-rights&change=${sampleId(40)}`)
})

test('where all is as it was decided nothing is to be drafted', () => {
  shown(<ReviewMargin page={page({ reviews: [review(() => 'stays', { note: 'Seen with the studio.' })] })} />)
  expect(screen.getByText('All is as it was decided.')).toBeTruthy()
  expect(screen.getByText('“Seen with the studio.”')).toBeTruthy()
  expect(screen.queryByRole('button')).toBeNull()
})

test('shares that nobody has looked at come first, and what is otherwise since is counted', () => {
  const list = {
    shares: [
      { share, lines, latest: review(key => (key === 'grant read *' ? 'goes' : 'stays')) },
      { share: sampleShare({ id: sampleId(72), name: 'never-seen' }), lines, latest: null },
      { share: sampleShare({ id: sampleId(73), name: 'quiet' }), lines, latest: review(() => 'stays') },
    ],
    shareCount: 3,
  }
  const { container } = shown(
    <>
      <ReviewSentence list={list} />
      <ReviewTable list={list} />
    </>,
  )
  expect(wordsOf(container)).toContain('One share was never looked at. Of one share the rights are no longer')
  const rows = screen
    .getAllByRole('row')
    .slice(1)
    .map(row => wordsOf(row))
  expect(rows[0]).toMatch(/never-seen.*nobody has decided/)
  expect(rows.find(row => row.includes('scans'))).toContain('one right that should go still there')
  expect(rows.find(row => row.includes('quiet'))).toContain('as it was decided')
})
