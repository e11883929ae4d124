import { kindParts } from '../kindParts'

/** The parts of Provision. */
export const provisionParts = [
  { href: '/provision', words: 'Volumes' },
  { href: '/provision/classes', words: 'Service classes' },
  ...kindParts('/provision/'),
]
