import type { Asked } from '@/app/server/answer'
import { AccessRefused } from '@/app/server/errors'
import { isPassword, passwordHash } from '@/app/server/passwords'
import { endSession, knownDevice, signedIn, startSession } from '@/app/server/session'
import { inTransaction } from '@/records'
import { addFirstAdministrator, countAttempt, passwordHashOf, succeeded, type Attempt } from '@/records/access'
import { audit } from '@/records/audit'

/** Counts the try before it is judged. @returns its number @throws {AccessRefused} where it has to wait */
export async function counted({ database }: Asked, attempt: Attempt): Promise<string> {
  const found = await countAttempt(database, attempt)
  if ('id' in found) return found.id
  const seconds = Math.ceil(found.waitSeconds)
  throw new AccessRefused(
    429,
    'access.throttled',
    'You were not signed in.',
    'Too many attempts under this name or from this address have failed.',
    `Try again in ${seconds} seconds.`,
    seconds,
  )
}

export const nameRule = /^[A-Za-z0-9][A-Za-z0-9._@-]{0,62}$/
export const wrongName = (what: string) =>
  new AccessRefused(
    422,
    'access.name',
    what,
    'A name has 1 to 63 letters, digits, dots, hyphens, underscores or @.',
    'Choose another name.',
  )

/** What is asked before anybody is signed in, and signing out. */
export const doorHandlers = {
  async signIn(asked: Asked) {
    const { body, database, scope, address } = asked
    const name = String(body['name'])
    const attempt = await counted(asked, { purpose: 'sign-in', name, address, device: await knownDevice(name) })
    const known = await passwordHashOf(scope, name)
    const isRight = (await isPassword(known?.passwordHash, String(body['password']))) && known !== undefined
    await inTransaction(database, async inside => {
      if (isRight) await succeeded(inside, attempt)
      const action = isRight ? 'session.opened' : 'session.refused'
      await audit(inside, { who: name, address, action, subject: `administrator ${name}` })
    })
    if (!isRight)
      throw new AccessRefused(
        401,
        'access.sign-in-refused',
        'You were not signed in.',
        'Name and password do not belong together.',
        'Check both; capitals count.',
      )
    await startSession(known.id, name)
  },
  async signOut({ database, address }: Asked) {
    const who = await signedIn()
    if (who !== undefined)
      await inTransaction(database, inside =>
        audit(inside, { who: who.name, address, action: 'session.closed', subject: `administrator ${who.name}` }),
      )
    await endSession()
  },
  async firstAdministrator(asked: Asked) {
    const { body, database, address } = asked
    const name = String(body['name'])
    if (!nameRule.test(name)) throw wrongName('You were not signed in.')
    const attempt = await counted(asked, { purpose: 'first-code', name: '', address, device: undefined })
    const hashed = await passwordHash(String(body['password']), name)
    const id = await inTransaction(database, async inside => {
      const added = await addFirstAdministrator(inside, String(body['code']), name, hashed)
      const action = added === undefined ? 'administrator.code-refused' : 'administrator.added'
      if (added !== undefined) await succeeded(inside, attempt)
      await audit(inside, { who: name, address, action, subject: `administrator ${name}` })
      return added
    })
    if (id === undefined)
      throw new AccessRefused(
        403,
        'access.code-refused',
        'You were not signed in.',
        'The code is not the one that the start printed, or it has been used.',
        'Copy the code from the terminal in which Wendrel was started.',
      )
    await startSession(id, name)
  },
}
