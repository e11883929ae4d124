import { countAtStart } from '@/core/units'
import type { SlowList, VolumeLoad } from '@/core/views'
import { latencyWords } from './loadWords'

/** What matters of how fast volumes answer: promises first, then who is loud. */
export function performanceSentence(
  list: SlowList,
  load: VolumeLoad | undefined,
): { readonly first: string; readonly then: string } {
  const [slowest] = list.lines
  if (slowest === undefined)
    return {
      first: 'Nothing has been measured yet.',
      then: 'How fast volumes answer is known an hour after their system is read.',
    }
  const [loudest] = load?.loud.volumes ?? []
  const name = loudest === undefined ? undefined : load?.loud.names[loudest.id]
  const isPromised = list.lines.some(({ promisedSeconds }) => promisedSeconds !== null)
  return {
    first: !isPromised
      ? 'Nothing is promised of latency yet.'
      : list.missing === 0
        ? 'Every promise of latency is kept.'
        : `${countAtStart(list.missing, 'volume answers', 'volumes answer')} slower than promised.`,
    then: `${countAtStart(list.total, 'volume is', 'volumes are')} measured; ${slowest.name} ${list.missing === 0 ? 'is the slowest' : 'misses most'}, with ${latencyWords(slowest.p95Seconds)} or less for nineteen of twenty minutes.${
      name === undefined || loudest === undefined || load === undefined
        ? ''
        : ` ${name} makes ${(loudest.share * 100).toFixed(0)}% of what ${load.line.poolName} was asked for in its worst hour.`
    }`,
  }
}
