/** The parts of Watch. */
export const watchParts = [
  { href: '/watch', words: 'Capacity' },
  { href: '/watch/left-behind', words: 'Left behind' },
  { href: '/watch/performance', words: 'Performance' },
  { href: '/watch/threads', words: 'Threads' },
  { href: '/watch/board', words: 'Board' },
  { href: '/watch/health', words: 'Health' },
  { href: '/watch/report', words: 'Report' },
  { href: '/watch/telling', words: 'Telling' },
  { href: '/watch/rules', words: 'Rules' },
  { href: '/watch/routes', words: 'Routes' },
]
