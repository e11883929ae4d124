/** The parts of Watch. */
export const watchParts = [
  { href: '/watch', words: 'Capacity' },
  { href: '/watch/performance', words: 'Performance' },
  { href: '/watch/health', words: 'Health' },
  { href: '/watch/telling', words: 'Telling' },
  { href: '/watch/rules', words: 'Rules' },
  { href: '/watch/routes', words: 'Routes' },
]
