'use client'
import { ListChecks } from 'lucide-react'
import { useRouter } from 'next/navigation'
import { Popover } from 'radix-ui'
import { useState, type FormEventHandler, type ReactNode } from 'react'
import { toast } from '../../parts/toast'
import { ask } from '../../api'
import { Field } from '../../parts/Field'
import { useEntries } from '../../parts/useEntries'

/** Notes that the round is done, with a word for whoever does the next. */
export function RoundDone() {
  const router = useRouter()
  const [isOpen, setOpen] = useState(false)
  const { entry, submit, told, isBusy } = useEntries({
    start: { note: '' },
    send: body => ask('POST', '/rounds', body),
    sent: (_, clear) => {
      clear()
      setOpen(false)
      toast.success('The round is noted. Today says from now on what has changed since.')
      router.refresh()
    },
  })
  const note = entry('note')
  return (
    <Popover.Root open={isOpen} onOpenChange={setOpen}>
      <Popover.Trigger className="button quiet h-7 gap-[6px] px-[9px] font-normal">
        <ListChecks aria-hidden size={13} />
        Round done
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="start" sideOffset={4} collisionPadding={8} className="list-panel w-[320px] p-3">
          <NoteForm submit={submit} note={note} told={told} isBusy={isBusy} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}

interface NoteFormProps {
  readonly submit: FormEventHandler
  readonly note: { readonly value: string; readonly onChange: (value: string) => void }
  readonly told: ReactNode
  readonly isBusy: boolean
}

const NoteForm = ({ submit, note, told, isBusy }: NoteFormProps) => (
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
)
