import { getIronSession } from 'iron-session'
import { cookies, headers } from 'next/headers'
import { administratorOf, bearerOf, closeSession, openSession } from '@/records/access'
import { context } from './context'
import { AccessRefused } from './errors'

interface Sealed {
  sessionId?: string
}

const cookieName = 'wendrel'
const sealed = async () =>
  getIronSession<Sealed>(await cookies(), {
    cookieName,
    password: context().key.toString('base64'),
    // `secure` would keep the cookie away on plain HTTP to another host than localhost; a proxy with TLS in front sets WENDREL_SECURE.
    cookieOptions: { httpOnly: true, sameSite: 'lax', secure: process.env['WENDREL_SECURE'] === '1', path: '/' },
  })

export interface Asker {
  readonly id: string
  readonly name: string
}

/** Who asks, by session cookie; undefined where nobody is signed in. */
export async function signedIn(): Promise<Asker | undefined> {
  const { sessionId } = await sealed()
  return sessionId === undefined ? undefined : administratorOf({ database: context().database }, sessionId)
}

/**
 * Who asks an API route, by bearer token or session cookie. A change by cookie must come from our own pages.
 * @throws {AccessRefused}
 */
export async function asker(method: string): Promise<Asker> {
  const sent = await headers()
  const authorization = sent.get('authorization')
  if (authorization !== null) {
    const token = /^Bearer (\S+)$/.exec(authorization)?.[1]
    const bearer = token === undefined ? undefined : await bearerOf({ database: context().database }, token)
    if (bearer === undefined)
      throw new AccessRefused(
        401,
        'access.token-refused',
        'The request was not carried out.',
        'The bearer token is unknown or has been withdrawn.',
        'Make a token under Account.',
      )
    return bearer
  }
  if (method !== 'GET') refuseForeign(sent)
  const known = await signedIn()
  if (known === undefined)
    throw new AccessRefused(
      401,
      'access.not-signed-in',
      'The request was not carried out.',
      'Nobody is signed in, or the session has ended.',
      'Sign in, or send a bearer token.',
    )
  return known
}

/** Refuses a change that another site's page has sent with our cookie. */
export function refuseForeign(sent: Headers): void {
  const origin = sent.get('origin')
  if (origin === null || new URL(origin).host === sent.get('host')) return
  throw new AccessRefused(
    403,
    'access.foreign-origin',
    'The request was not carried out.',
    'It came from a page of another site.',
    "Use Wendrel's own pages.",
  )
}

export async function startSession(administratorId: string): Promise<void> {
  const session = await sealed()
  session.sessionId = await openSession({ database: context().database }, administratorId)
  await session.save()
}

export async function endSession(): Promise<void> {
  const session = await sealed()
  if (session.sessionId !== undefined) await closeSession({ database: context().database }, session.sessionId)
  session.destroy()
}
