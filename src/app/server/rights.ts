import type { Asker } from './session'

/** What is asked for: to read, to work on the estate, or to decide who else may. */
export type Right = 'read' | 'change' | 'administer'

/**
 * Whether somebody may. Today every administrator may do everything; pages, routes and streams all ask here, so that roles need no
 * other place.
 */
export const may = (who: Asker, _right: Right): boolean => who.id !== ''
