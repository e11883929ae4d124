import isEqual from 'fast-deep-equal'
import { useEffect, useRef, type RefObject } from 'react'
import type { ShownChange } from '@/core/views'
import type { DraftWriter } from './DraftWriter'
import { keepUnsent, takeUnsent } from './unsent'

interface Form<Intent> {
  readonly writer: () => DraftWriter
  readonly latest: RefObject<Intent>
  readonly hold: (patch: Partial<Intent>) => void
  /** Whether it was carried out or discarded: then there is nothing to keep. */
  readonly isLeft: RefObject<boolean>
  readonly fill: (patch: Partial<Intent>) => void
  readonly setForeign: (kept: ShownChange) => void
}

/** What could not be sent outlives its page, and what was typed last is sent when the form goes. */
export function useUnsent<Intent extends object>(
  kind: string,
  kept: ShownChange | undefined,
  { writer, latest, hold, isLeft, fill, setForeign }: Form<Intent>,
): void {
  // What an earlier page of this draft could not send stands here again; where the draft was altered meanwhile, both are shown.
  const keptAt = useRef(kept)
  const show = useRef(setForeign)
  useEffect(() => {
    const was = keptAt.current
    const unsent = takeUnsent(was?.id ?? unkeptName(kind))
    if (unsent === undefined || isEqual(unsent.intent, was?.intent)) return
    // A page can have been read before what its tab sent last had arrived: it goes on from there.
    const isReadTooSoon = was !== undefined && was.edit < unsent.edit
    if (unsent.isWritten && !isReadTooSoon) return
    if (isReadTooSoon) writer().rebase({ ...was, edit: unsent.edit })
    fill(unsent.intent as Intent)
    // The page may go before it is drawn.
    hold(unsent.intent as Intent)
    if (was !== undefined && was.edit > unsent.edit) show.current(was)
  }, [kind, fill, writer, hold])

  useEffect(() => {
    const keep = () => {
      const { change } = writer()
      const isWritten = writer().isWritten(latest.current)
      if (isLeft.current || (isWritten && change === undefined)) return
      keepUnsent(change?.id ?? unkeptName(kind), { intent: latest.current, edit: change?.edit ?? 0, isWritten })
    }
    window.addEventListener('pagehide', keep)
    return () => {
      window.removeEventListener('pagehide', keep)
      // As they stand when the form goes: that is what is to be kept.
      // eslint-disable-next-line react-hooks/exhaustive-deps
      if (isLeft.current || writer().change === undefined) return
      // At once, and as it is answered: a page that failed is read anew before a server that hangs has said anything.
      keep()
      // eslint-disable-next-line react-hooks/exhaustive-deps
      void writer().write(latest.current, true).then(keep)
    }
  }, [writer, kind, latest, isLeft])
}

/** What a draft is known by in its tab before it has an id: its kind, and what it was begun about. */
const unkeptName = (kind: string) => `${kind} ${window.location.pathname}${window.location.search}`
