import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { NotThere } from '@/app/server/errors'
import { revokeToken } from '@/records/access'

export const DELETE = answer('revokeToken', async ({ id, who }) => {
  if (!(await revokeToken({ database: context().database }, who.id, id))) throw new NotThere('The token')
  return undefined
})
