import { kindParts } from '../kindParts'

/** The parts of Grant. */
export const grantParts = [
  { href: '/grant', words: 'Who can' },
  { href: '/grant/reviews', words: 'Reviews' },
  { href: '/grant/connections', words: 'Connections' },
  ...kindParts('/grant/'),
]
