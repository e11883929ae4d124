'use client'
import { useRouter } from 'next/navigation'
import type { RefObject } from 'react'
import { ask } from '../../api'
import { Beside } from '../../parts/Beside'
import { NoteField } from '../../parts/NoteField'
import { toast } from '../../parts/toast'
import { useEntries } from '../../parts/useEntries'

interface RoundNoteProps {
  readonly anchor: RefObject<HTMLElement | null>
  readonly close: () => void
}

export default function RoundNote({ anchor, close }: RoundNoteProps) {
  const router = useRouter()
  const { entry, submit, told, isBusy } = useEntries({
    start: { note: '' },
    send: body => ask('POST', '/rounds', body),
    sent: () => {
      close()
      toast.success('The round is noted. Today says from now on what has changed since.')
      router.refresh()
    },
  })
  const note = entry('note')
  return (
    <Beside anchor={anchor} close={close} className="w-[320px] p-3">
      <form onSubmit={submit}>
        <NoteField
          hint="For whoever does the next round; it may be left empty."
          value={note.value}
          onChange={note.onChange}
        />
        {told}
        <button type="submit" className="button" disabled={isBusy}>
          Note it
        </button>
      </form>
    </Beside>
  )
}
