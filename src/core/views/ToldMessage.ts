import type { Message } from '../telling'

/** A message that has left, is to leave, or could not. */
export interface ToldMessage {
  readonly id: string
  readonly message: Message
  readonly routeId: string | null
  readonly routeName: string | null
  readonly madeAt: string
  readonly sentAt: string | null
  readonly tries: number
  readonly nextAt: string | null
  readonly sent: string | null
  readonly answer: string | null
  readonly failedWhy: string | null
}
