/** The sections in the order of the work, with the digit that leads there. */
export const sections = [
  { key: '1', href: '/', words: 'Today' },
  { key: '2', href: '/build', words: 'Build' },
  { key: '3', href: '/provision', words: 'Provision' },
  { key: '4', href: '/grant', words: 'Grant' },
  { key: '6', href: '/watch', words: 'Watch' },
] as const
