import { unsealData } from 'iron-session'
import { LRUCache } from 'lru-cache'
import { context } from './context'

export const cookieName = 'wendrel'

/** What cookies hold, so that one is not opened anew for each request: that takes longer than to ask whether its session holds. */
const opened = new LRUCache<string, string>({ max: 5000, ttl: 600_000 })

/** The session that a cookie names; undefined where it is none of ours. Whether the session holds is asked of the records. */
export async function sessionIdIn(cookie: string | undefined): Promise<string | undefined> {
  if (cookie === undefined) return undefined
  const known = opened.get(cookie)
  if (known !== undefined) return known
  const password = context().key.toString('base64')
  const { sessionId } = await unsealData<{ sessionId?: string }>(cookie, { password }).catch(
    () => ({}) as { sessionId?: string },
  )
  if (sessionId !== undefined) opened.set(cookie, sessionId)
  return sessionId
}

/** The bearer token in an Authorization header; undefined where it holds none. */
export const tokenIn = (authorization: string): string | undefined => /^Bearer (\S{1,200})$/.exec(authorization)?.[1]
