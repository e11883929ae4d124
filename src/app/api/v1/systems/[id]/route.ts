import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { NotThere } from '@/app/server/errors'
import { systemPage } from '@/records/queries'

export const GET = answer('readSystem', async ({ id }) => {
  const page = await systemPage({ database: context().database }, id)
  if (page === undefined) throw new NotThere('The system')
  return page
})
