import { kindParts } from '../kindParts'

/** The parts of Provision. */
export const provisionParts = [{ href: '/provision', words: 'Volumes' }, ...kindParts('/provision/')]
