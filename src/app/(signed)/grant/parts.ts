import { kindParts } from '../kindParts'

/** The parts of Grant. */
export const grantParts = [{ href: '/grant', words: 'Who can' }, ...kindParts('/grant/')]
