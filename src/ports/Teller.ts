import type { Message } from '@/core/telling'

/** What left, and what was answered to it: both as text, cut where they are long. */
export interface Delivered {
  readonly sent: string
  readonly answer: string
}

/** A way by which somebody is told. */
export interface Teller {
  /**
   * Hands a message over. It may be handed over twice where the answer to the first got lost: its id tells receivers.
   * @throws where it was not taken
   */
  readonly tell: (message: Message, id: string) => Promise<Delivered>
}
