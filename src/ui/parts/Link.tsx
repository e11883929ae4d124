import NextLink from 'next/link'
import type { ComponentProps } from 'react'

/**
 * A link to a page of ours. Nothing is asked for ahead: each page is made anew for its reader, so that what came ahead would hold nothing
 * that could be shown, and every page that hears of a change would ask again for all that it leads to, at every change.
 */
export const Link = (props: Omit<ComponentProps<typeof NextLink>, 'prefetch'>) => (
  <NextLink {...props} prefetch={false} />
)
