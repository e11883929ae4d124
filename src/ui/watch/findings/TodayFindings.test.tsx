/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import type { TodayFinding } from '@/core/today'
import { shown, wordsOf } from '../../testing/browser'
import { TodayFindings } from '.'

const finding = (key: string, what: string): TodayFinding => ({
  ...{ key, gravity: 'soon', what, why: 'It is so.', remedy: 'Mend it.', href: `/there/${key}` },
})

test('each may be let stand but that nobody looks; what is let stand is folded, with who, why and until when', async () => {
  const exception = {
    findingKey: 'full/2',
    gravity: 'soon' as const,
    reason: 'bought already',
    signedBy: 'keeper',
    until: '2026-12-24T23:59:59Z',
  }
  const { user } = shown(
    <TodayFindings
      findings={[finding('full/1', 'main is full'), finding('no-worker', 'No worker runs')]}
      stood={[{ ...finding('full/2', 'side is full'), exception }]}
    />,
  )
  expect(screen.getAllByRole('link', { name: /^Let stand/ }).map(link => link.getAttribute('href'))).toEqual([
    '/watch/health?draft=sign-exception&finding=full%2F1',
  ])
  expect(screen.queryByText('side is full')).toBeNull()
  await user.click(screen.getByRole('button', { name: /one thing is let stand/ }))
  expect(wordsOf(document.body)).toContain('side is full until 2026-12-24, by keeper: bought already')
})
