import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { AccessRefused } from '@/app/server/errors'
import { passwordHash } from '@/app/server/passwords'
import { addAdministrator, administrators } from '@/records/access'

export const GET = answer('listAdministrators', async () => ({
  items: await administrators({ database: context().database }),
}))

export const POST = answer(
  'addAdministrator',
  async ({ body }) => {
    const name = String(body['name'])
    if (!/^[A-Za-z0-9][A-Za-z0-9._@-]{0,62}$/.test(name))
      throw new AccessRefused(
        422,
        'access.name',
        'The administrator was not added.',
        'A name has 1 to 63 letters, digits, dots, hyphens, underscores or @.',
        'Choose another name.',
      )
    const id = await addAdministrator(
      { database: context().database },
      name,
      await passwordHash(String(body['password']), name),
    )
    if (id === undefined)
      throw new AccessRefused(
        409,
        'access.name-taken',
        'The administrator was not added.',
        `${name} is there already.`,
        'Choose another name.',
      )
    return { id }
  },
  201,
)
