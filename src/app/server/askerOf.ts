import type { IncomingMessage } from 'node:http'
import { administratorOf, bearerOf } from '@/records/access'
import { context } from './context'
import { cookieName, sessionIdIn, tokenIn } from './credentials'

/**
 * Who asks, by session cookie or bearer token, in a word that differs for any two who may not see the same; undefined where nobody is
 * known. Next asks again by its own way before anything is read anew.
 */
export async function askerOf({ headers }: IncomingMessage): Promise<string | undefined> {
  const { database, memory } = context()
  const { authorization } = headers
  if (authorization !== undefined) {
    const token = tokenIn(authorization)
    const bearer = token === undefined ? undefined : await bearerOf({ database }, token)
    return bearer === undefined ? undefined : `token of ${bearer.id}`
  }
  const cookie = new RegExp(`(?:^|;\\s*)${cookieName}=([^;]+)`).exec(headers.cookie ?? '')?.[1]
  const sessionId = await sessionIdIn(cookie === undefined ? undefined : decodeURIComponent(cookie))
  const administrator = sessionId === undefined ? undefined : await administratorOf({ database, memory }, sessionId)
  return administrator === undefined ? undefined : `session of ${administrator.id}`
}
