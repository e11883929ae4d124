import { fileParts } from './fileParts'
import type { Maker } from './Maker'

/** Arrays of the maker Ferrow: they serve files. */
export const ferrow: Maker = fileParts
