/** The parts of Watch. */
export const watchParts = [
  { href: '/watch', words: 'Capacity' },
  { href: '/watch/performance', words: 'Performance' },
  { href: '/watch/health', words: 'Health' },
]
