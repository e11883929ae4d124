import type { ConnectionTest } from '@/core/views'

/** Whether somebody gets there, in one sentence: how far, and what stops it. */
export function connectionSaid({ hops, caller, protocol }: ConnectionTest, host: string, share: string): string {
  const stop = hops.find(({ state }) => state === 'stops')
  if (stop === undefined) return `${caller} gets from ${host} to ${share} over ${protocol}, and may write.`
  if (stop.hop === 'write') return `${caller} gets from ${host} to ${share} over ${protocol}, and may only read.`
  return `${caller} does not get from ${host} to ${share} over ${protocol}: it ends at the ${stop.label.toLowerCase()}.`
}

/** How grave its outcome is: a way that ends, rights that let less than all, or all well. */
export function connectionGravity({ hops }: Pick<ConnectionTest, 'hops'>): 'fine' | 'soon' | 'now' {
  const stop = hops.find(({ state }) => state === 'stops')
  return stop === undefined ? 'fine' : stop.hop === 'write' ? 'soon' : 'now'
}

/** As hosts measure it. */
export const millisecondsWords = (milliseconds: number | null): string =>
  milliseconds === null ? '' : `${milliseconds < 10 ? milliseconds.toFixed(2) : milliseconds.toFixed(0)} ms`
