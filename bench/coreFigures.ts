import { lossProbability, meanHoursToLoss, yearHours } from '@/core/durability'
import { mostStripes } from '@/core/layout'
import { inWords, timed, under, type Figure } from './measure'

const chains = 10_000
const domains = 10_000

/** Durability and layout, beside what is to be reached; the slow reference for layout counts by one in the same run. */
export async function coreFigures(): Promise<Figure[]> {
  const durability = await timed(3, () => {
    for (let index = 0; index < chains; index += 1) {
      const group = {
        drives: 4 + (index % 21),
        parityDrives: index % 4,
        annualFailureRate: 0.005 + (index % 10) / 1000,
        rebuildHours: 1 + (index % 60),
        repair: index % 2 === 0 ? ('serial' as const) : ('parallel' as const),
        bitErrorRate: 1e-16,
        bitsReadToRebuild: 10n ** 14n,
      }
      meanHoursToLoss(group)
      lossProbability(group, yearHours)
      lossProbability(group, 5 * yearHours)
    }
  })
  const uneven = Array.from({ length: domains }, (_, index) => BigInt(1_000_000 + ((index * 7919) % 900_001)))
  const layout = await timed(15, () => mostStripes(uneven, 11))
  const few = uneven.slice(0, 24)
  const halving = await timed(15, () => mostStripes(few, 11))
  const counting = await timed(3, () => countedByOne(few.map(Number), 11))
  return [
    under(`Durability: ${chains.toLocaleString('en')} chains, MTTDL and loss in 1 and 5 years`, durability, 1000),
    under(`Layout over ${domains.toLocaleString('en')} uneven domains`, layout, 5),
    {
      what: 'Layout over 24 domains beside counting by one',
      measured: `${(counting.median / halving.median).toFixed(0)} times as fast (${inWords(halving.median)})`,
      wanted: 'faster',
      holds: halving.best < counting.median,
    },
  ]
}

function countedByOne(chunks: readonly number[], width: number): number {
  let stripes = 0
  while (chunks.reduce((sum, count) => sum + Math.min(count, stripes + 1), 0) >= width * (stripes + 1)) stripes += 1
  return stripes
}
