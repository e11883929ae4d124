import { kindList, titleOf } from '@/core/estate'

/** The parts of a section that are list pages of a kind, as the kinds say. */
export const kindParts = (section: string) =>
  kindList.flatMap(kind =>
    kind.list?.place.startsWith(section) === true ? [{ href: kind.list.place, words: titleOf(kind) }] : [],
  )
