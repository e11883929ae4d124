import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { lookAtSystem } from '@/drafting'

export const POST = answer(
  'lookAt',
  async ({ body, who, request }) => {
    const { database, key } = context()
    const asked = {
      address: String(body['address']),
      userName: String(body['userName']),
      password: String(body['password']),
      madeBy: who.name,
    }
    return lookAtSystem({ database }, key, asked, request.signal)
  },
  201,
)
