/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { shown } from '../testing/browser'
import { SubSections } from '.'

const parts = [
  { href: '/grant', words: 'Who can' },
  { href: '/grant/reviews', words: 'Reviews' },
  { href: '/grant/people', words: 'People' },
]

test.each([
  ['/grant', 'Who can', 'page'],
  ['/grant/reviews', 'Reviews', 'page'],
  ['/grant/reviews/x', 'Reviews', 'true'],
  ['/grant/else', 'Who can', 'true'],
  ['/grant/reviewsof', 'Who can', 'true'],
])('%s belongs to %s', (at, words, current) => {
  shown(<SubSections of={parts} />, at)
  const marked = screen.getAllByRole('link').filter(each => each.getAttribute('aria-current') !== null)
  expect(marked.map(each => [each.textContent, each.getAttribute('aria-current')])).toEqual([[words, current]])
})

test('elsewhere no part is marked', () => {
  shown(<SubSections of={parts} />, '/provision')
  expect(screen.getAllByRole('link').every(each => each.getAttribute('aria-current') === null)).toBe(true)
})
