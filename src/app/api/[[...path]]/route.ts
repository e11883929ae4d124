import { answering } from '@/app/server/answer'
import { handlers } from '../v1/handlers'

export const dynamic = 'force-dynamic'

/** Every request below /api: the contract says what stands where, so that no path and no method is answered by chance. */
const answer = answering(handlers)
export {
  answer as DELETE,
  answer as GET,
  answer as HEAD,
  answer as OPTIONS,
  answer as PATCH,
  answer as POST,
  answer as PUT,
}
