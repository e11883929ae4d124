import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { NotThere } from '@/app/server/errors'
import { volumePage } from '@/records/queries'

export const GET = answer('readVolume', async ({ id }) => {
  const page = await volumePage({ database: context().database }, id)
  if (page === undefined) throw new NotThere('The volume')
  return page
})
