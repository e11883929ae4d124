/** The parts of Build. */
export const buildParts = [
  { href: '/build', words: 'Systems' },
  { href: '/build/pools', words: 'Pools' },
] as const
