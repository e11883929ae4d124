'use client'
import { useRouter } from 'next/navigation'
import type { RefObject } from 'react'
import { ask } from '../../api'
import { Beside } from '../../parts/Beside'
import { Field } from '../../parts/Field'
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
        <Field label="Note" hint="For whoever does the next round; it may be left empty.">
          {labelled => (
            <textarea
              {...labelled}
              className="field h-auto"
              rows={3}
              maxLength={1000}
              value={note.value}
              onChange={event => note.onChange(event.target.value)}
            />
          )}
        </Field>
        {told}
        <button type="submit" className="button" disabled={isBusy}>
          Note it
        </button>
      </form>
    </Beside>
  )
}
