'use client'
import { useRouter } from 'next/navigation'
import { ask } from '../../api'
import { TextField } from '../../parts/TextField'
import { useEntries } from '../../parts/useEntries'

/** Adds a site by its name. */
export function AddSite() {
  const router = useRouter()
  const { given, entry, submit, told, isBusy } = useEntries({
    start: { name: '' },
    send: body => ask('POST', '/sites', body),
    sent: (_, clear) => {
      clear()
      router.refresh()
    },
  })
  return (
    <form className="mt-2" onSubmit={submit}>
      <div className="flex items-end gap-2">
        <div className="min-w-0 flex-1">
          <TextField label="Add a site" maxLength={120} {...entry('name')} />
        </div>
        <button type="submit" className="button quiet mb-[9px]" disabled={isBusy || given.name.trim() === ''}>
          Add
        </button>
      </div>
      {told}
    </form>
  )
}
