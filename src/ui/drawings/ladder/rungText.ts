import type { Rung } from '@/core/layout'
import type { RungText } from '@/core/plan'

/** A rung with its bytes as text, as it goes to a drawing. */
export const rungText = (rung: Rung): RungText => ({
  name: rung.name,
  bytes: `${rung.bytes}`,
  takenBytes: `${rung.takenBytes}`,
  sum: rung.sum.map(item => ({ name: item.name, bytes: `${item.bytes}` })),
})
