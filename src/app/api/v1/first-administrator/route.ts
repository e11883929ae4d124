import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { AccessRefused } from '@/app/server/errors'
import { passwordHash } from '@/app/server/passwords'
import { refuseForeign, startSession } from '@/app/server/session'
import { inTransaction } from '@/records'
import { addFirstAdministrator } from '@/records/access'

export const POST = answer('firstAdministrator', async ({ body, request }) => {
  refuseForeign(request.headers)
  const name = String(body['name'])
  if (!/^[A-Za-z0-9][A-Za-z0-9._@-]{0,62}$/.test(name))
    throw new AccessRefused(
      422,
      'access.name',
      'You were not signed in.',
      'A name has 1 to 63 letters, digits, dots, hyphens, underscores or @.',
      'Choose another name.',
    )
  const hashed = await passwordHash(String(body['password']), name)
  const id = await inTransaction(context().database, scope =>
    addFirstAdministrator(scope, String(body['code']), name, hashed),
  )
  if (id === undefined)
    throw new AccessRefused(
      403,
      'access.code-refused',
      'You were not signed in.',
      'The code is not the one that the start printed, or it has been used.',
      'Copy the code from the terminal in which Wendrel was started.',
    )
  await startSession(id)
  return undefined
})
