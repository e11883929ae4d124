import { kindParts } from '../kindParts'

/** The parts of Build, in the order in which it is done. */
export const buildParts = [
  { href: '/build', words: 'Systems' },
  { href: '/build/network', words: 'Network' },
  { href: '/build/drives', words: 'Drives' },
  { href: '/build/pools', words: 'Pools' },
  ...kindParts('/build/'),
]
