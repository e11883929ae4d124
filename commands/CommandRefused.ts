/** A command that cannot go on: one line that says why, and the way out. */
export class CommandRefused extends Error {
  constructor(
    why: string,
    readonly wayOut: string,
  ) {
    super(why)
  }
}
