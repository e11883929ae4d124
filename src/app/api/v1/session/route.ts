import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { AccessRefused } from '@/app/server/errors'
import { isPassword } from '@/app/server/passwords'
import { endSession, refuseForeign, startSession } from '@/app/server/session'
import { noteAttempt, passwordHashOf, recentFailures } from '@/records/access'

const freeFailures = 3
const longestWaitSeconds = 300

export const POST = answer('signIn', async ({ body, request }) => {
  refuseForeign(request.headers)
  const scope = { database: context().database }
  const name = String(body['name'])
  const { count, secondsAgo } = await recentFailures(scope, name)
  // Each failure after the third doubles the wait, from two seconds up to five minutes.
  const waitSeconds =
    count < freeFailures ? 0 : Math.min(longestWaitSeconds, 2 ** (count - freeFailures + 1)) - secondsAgo
  if (waitSeconds > 0) {
    throw new AccessRefused(
      429,
      'access.throttled',
      'You were not signed in.',
      `${count} attempts under this name have failed.`,
      `Try again in ${Math.ceil(waitSeconds)} seconds.`,
    )
  }
  const known = await passwordHashOf(scope, name)
  const isRight = await isPassword(known?.password_hash, String(body['password']))
  await noteAttempt(scope, name, request.headers.get('x-forwarded-for')?.slice(0, 100) ?? 'direct', isRight)
  if (!isRight || known === undefined)
    throw new AccessRefused(
      401,
      'access.sign-in-refused',
      'You were not signed in.',
      'Name and password do not belong together.',
      'Check both; capitals count.',
    )
  await startSession(known.id)
  return undefined
})

export const DELETE = answer('signOut', async () => endSession())
