/** The estate's time as its systems tell it: at `wallAt` it was `estateAt`, and it runs `rate` times as fast as the wall. */
export interface EstateClock {
  readonly wallAt: string
  readonly estateAt: string
  readonly rate: number
}

/** The estate's time at a moment of the wall's. */
export function estateTime(clock: EstateClock, wall: Date): Date {
  const passed = wall.getTime() - Date.parse(clock.wallAt)
  return new Date(Date.parse(clock.estateAt) + passed * clock.rate)
}
