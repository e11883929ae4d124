import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { standingFindings } from '@/records/queries'

export const GET = answer('listFindings', async ({ query }) => {
  const systemId = query.get('systemId')
  const isId = systemId !== null && /^[0-9a-f-]{36}$/.test(systemId)
  return { items: await standingFindings({ database: context().database }, isId ? systemId : null) }
})
