import { redirect } from 'next/navigation'
import { cache } from 'react'
import type { Sequelize } from 'sequelize'
import { administratorCount } from '@/records/access'
import type { ReadingScope } from '@/records'
import { context } from './context'
import { may } from './rights'
import { signedIn, type Asker } from './session'

/** The records as somebody may read them. */
export interface Reader {
  readonly who: Asker
  readonly database: Sequelize
  readonly scope: ReadingScope
}

/**
 * The one way from a page to the records. Nobody is let through who is not signed in: each page asks for itself, since a page is
 * answered beside its layout and also without it. Asked once for each request, however many parts ask.
 */
export const reader = cache(async (): Promise<Reader> => {
  const who = await signedIn()
  const { database, memory } = context()
  if (who === undefined || !may(who, 'read'))
    redirect((await administratorCount({ database })) === 0 ? '/welcome' : '/sign-in')
  return { who, database, scope: { database, memory } }
})

/** For the pages before signing in: whether anybody could sign in, and whether somebody has. */
export async function atTheDoor(): Promise<{ readonly isEstateNew: boolean; readonly isSignedIn: boolean }> {
  const { database } = context()
  return {
    isEstateNew: (await administratorCount({ database })) === 0,
    isSignedIn: (await signedIn()) !== undefined,
  }
}
