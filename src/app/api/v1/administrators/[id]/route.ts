import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { AccessRefused } from '@/app/server/errors'
import { inTransaction } from '@/records'
import { removeAdministrator } from '@/records/access'

export const DELETE = answer('removeAdministrator', async ({ id }) => {
  const isRemoved = await inTransaction(context().database, scope => removeAdministrator(scope, id))
  if (!isRemoved)
    throw new AccessRefused(
      409,
      'access.last-administrator',
      'The administrator was not removed.',
      'It is the last one, or it is gone already.',
      'Add another administrator first.',
    )
  return undefined
})
