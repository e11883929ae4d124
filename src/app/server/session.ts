import { getIronSession, sealData, unsealData } from 'iron-session'
import { cookies, headers } from 'next/headers'
import { randomUUID } from 'node:crypto'
import {
  administratorOf,
  bearerOf,
  closeSession,
  isSessionOpen,
  isTokenKnown,
  openSession,
  type Attempt,
} from '@/records/access'
import { context } from './context'
import { cookieName, sessionIdIn, tokenIn } from './credentials'
import { AccessRefused } from './errors'
import { isOverTls } from './peer'

interface Sealed {
  sessionId?: string
}

const knownName = 'wendrel-known'
const knownSeconds = 180 * 24 * 3600
const password = () => context().key.toString('base64')

/** Secure whenever the request came over TLS; WENDREL_SECURE=1 insists on it. */
const isSecure = async () => process.env['WENDREL_SECURE'] === '1' || isOverTls(await headers())
const cookieOptions = async () => ({
  httpOnly: true,
  sameSite: 'lax' as const,
  secure: await isSecure(),
  path: '/',
})
const sealed = async () =>
  getIronSession<Sealed>(await cookies(), { cookieName, password: password(), cookieOptions: await cookieOptions() })

/** Who asks, and by what: the session or the token that ends what they may. */
export interface Asker {
  readonly id: string
  readonly name: string
  readonly by: { readonly kind: 'session' | 'token'; readonly id: string }
}

/** Who asks, by session cookie; undefined where nobody is signed in. */
export async function signedIn(): Promise<Asker | undefined> {
  const sessionId = await sessionIdIn((await cookies()).get(cookieName)?.value)
  if (sessionId === undefined) return undefined
  const { database, memory } = context()
  const found = await administratorOf({ database, memory }, sessionId)
  return found === undefined ? undefined : { ...found, by: { kind: 'session', id: sessionId } }
}

/** Whether what somebody came in by still holds; asking does not keep it alive. */
export const stillHolds = ({ by }: Asker): Promise<boolean> =>
  by.kind === 'session'
    ? isSessionOpen({ database: context().database }, by.id)
    : isTokenKnown({ database: context().database }, by.id)

/**
 * Who asks an API route, by bearer token or session cookie. A change by cookie must come from our own pages.
 * @throws {AccessRefused}
 */
export async function asker(sent: Headers, isReading: boolean): Promise<Asker> {
  const authorization = sent.get('authorization')
  if (authorization !== null) {
    const token = tokenIn(authorization)
    const bearer = token === undefined ? undefined : await bearerOf({ database: context().database }, token)
    if (bearer === undefined)
      throw new AccessRefused(
        401,
        'access.token-refused',
        'The request was not carried out.',
        'The bearer token is unknown or has been withdrawn.',
        'Make a token under Account.',
      )
    return { id: bearer.id, name: bearer.name, by: { kind: 'token', id: bearer.tokenId } }
  }
  if (!isReading) refuseForeign(sent)
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

/** Refuses a change that another site's page has sent with our cookie; an origin that names nobody is another site's too. */
export function refuseForeign(sent: Headers): void {
  const origin = sent.get('origin')
  if (origin === null || (URL.canParse(origin) && new URL(origin).host === sent.get('host'))) return
  throw new AccessRefused(
    403,
    'access.foreign-origin',
    'The request was not carried out.',
    'It came from a page of another site.',
    "Use Wendrel's own pages.",
  )
}

/** Opens a session in this browser; one that it had before ends, and the browser is known under that name from now on. */
export async function startSession(administratorId: string, name: string): Promise<void> {
  const session = await sealed()
  session.sessionId = await openSession({ database: context().database }, administratorId, session.sessionId)
  await session.save()
  const mark = await sealData({ name, device: randomUUID() }, { password: password(), ttl: knownSeconds })
  ;(await cookies()).set(knownName, mark, { ...(await cookieOptions()), maxAge: knownSeconds })
}

/** The mark of a browser that has come in under a name before: it is counted by itself when somebody guesses passwords. */
export async function knownDevice(name: string): Promise<Attempt['device']> {
  const mark = (await cookies()).get(knownName)?.value
  if (mark === undefined) return undefined
  const found = await unsealData<{ name?: string; device?: string }>(mark, {
    password: password(),
    ttl: knownSeconds,
  }).catch(() => ({}) as { name?: string; device?: string })
  return found.name === name ? found.device : undefined
}

export async function endSession(): Promise<void> {
  const session = await sealed()
  if (session.sessionId !== undefined) await closeSession({ database: context().database }, session.sessionId)
  session.destroy()
}
