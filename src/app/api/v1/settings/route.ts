import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { inTransaction, setSetting, settings } from '@/records'

export const GET = answer('readSettings', async () => settings({ database: context().database }))

export const PUT = answer('writeSettings', async ({ body }) =>
  inTransaction(context().database, async scope => {
    await setSetting(scope, 'volume-naming', String(body['volumeNaming']))
    await setSetting(scope, 'holding-days', Number(body['holdingDays']))
    if (body['nameServer'] !== undefined) await setSetting(scope, 'name-server', String(body['nameServer']))
    return settings(scope)
  }),
)
