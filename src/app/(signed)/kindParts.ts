import { kindList } from '@/core/estate'

/** The parts of a section that are list pages of a kind, as the kinds say. */
export const kindParts = (section: string) =>
  kindList.flatMap(({ list, words }) =>
    list?.place.startsWith(section) === true
      ? [{ href: list.place, words: `${words.many[0]?.toUpperCase() ?? ''}${words.many.slice(1)}` }]
      : [],
  )
