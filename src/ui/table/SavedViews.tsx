'use client'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Bookmark, Check, Trash2 } from 'lucide-react'
import { usePathname, useRouter } from 'next/navigation'
import { Dialog, DropdownMenu } from 'radix-ui'
import { useState } from 'react'
import { toast } from '../parts/toast'
import type { SavedView } from '@/core/views'
import { ask } from '../api'
import { TextField } from '../parts/TextField'
import { useEntries } from '../parts/useEntries'
import { viewQuery } from './viewQuery'
import { useAddress } from './useAddress'

/** The named views of a list: one is chosen by its name, kept as the list stands now, or dropped. Its address can be sent on. */
export function SavedViews() {
  const router = useRouter()
  const [isOpen, setOpen] = useState(false)
  const [isNaming, setNaming] = useState(false)
  const { path, views, now, isReading, changed, drop } = useViews(isOpen)
  const shown = views.find(each => each.query === now)
  return (
    <>
      <DropdownMenu.Root open={isOpen} onOpenChange={setOpen}>
        <DropdownMenu.Trigger className="button quiet h-7 max-w-[220px] gap-[6px] px-[9px] font-normal">
          <Bookmark aria-hidden size={12} />
          <span className="truncate">{shown?.name ?? 'Views'}</span>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content align="start" sideOffset={4} className="list-panel z-20 min-w-[230px] py-1">
            {views.map(view => (
              <ViewLine
                key={view.id}
                view={view}
                isShown={view === shown}
                show={() => router.push(`${path}${view.query === '' ? '' : `?${view.query}`}`)}
                drop={() => void drop(view)}
              />
            ))}
            {views.length === 0 && (
              <p className="m-0 px-[10px] py-1 text-second">{isReading ? 'Reading' : 'No view is named yet.'}</p>
            )}
            <DropdownMenu.Separator className="my-1 border-t border-rule-fine" />
            <DropdownMenu.Item className="list-option" onSelect={() => setNaming(true)}>
              Name the list as it stands now
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <NameView isOpen={isNaming} close={() => setNaming(false)} path={path} query={now} saved={changed} />
    </>
  )
}

/** The views of this list, read when they are looked at. */
function useViews(isOpen: boolean) {
  const path = usePathname()
  const { query } = useAddress()
  const client = useQueryClient()
  const known = useQuery({
    queryKey: ['views', path],
    queryFn: async () => {
      const answer = await ask<{ items: SavedView[] }>('GET', `/views?path=${encodeURIComponent(path)}`)
      return answer.ok ? answer.value.items : []
    },
    enabled: isOpen || query.size > 0,
    // Somebody else may have named one meanwhile.
    staleTime: 30_000,
  })
  const changed = () => client.invalidateQueries({ queryKey: ['views', path] })
  const drop = async ({ id, name }: SavedView) => {
    const answer = await ask('DELETE', `/views/${id}`)
    if (answer.ok) toast.success(`The view ${name} is dropped.`)
    else toast.error(`${answer.refusal.what} ${answer.refusal.why}`)
    await changed()
  }
  return { path, views: known.data ?? [], now: viewQuery(query), isReading: known.isFetching, changed, drop }
}

interface ViewLineProps {
  readonly view: SavedView
  readonly isShown: boolean
  readonly show: () => void
  readonly drop: () => void
}

const ViewLine = ({ view, isShown, show, drop }: ViewLineProps) => (
  <div className="flex items-center">
    <DropdownMenu.Item className="list-option min-w-0 flex-1" onSelect={show}>
      <span className="w-3 shrink-0 text-action">{isShown && <Check aria-hidden size={12} />}</span>
      <span className="truncate">{view.name}</span>
      <span className="ml-auto pl-3 text-xs text-faint">{view.madeBy}</span>
    </DropdownMenu.Item>
    <DropdownMenu.Item className="list-option" aria-label={`Drop the view ${view.name}`} onSelect={drop}>
      <Trash2 aria-hidden size={12} className="text-faint" />
    </DropdownMenu.Item>
  </div>
)

interface NameViewProps {
  readonly isOpen: boolean
  readonly close: () => void
  readonly path: string
  readonly query: string
  readonly saved: () => Promise<void>
}

function NameView({ isOpen, close, path, query, saved }: NameViewProps) {
  const { given, entry, submit, told, isBusy } = useEntries({
    start: { name: '' },
    send: ({ name }) => ask<SavedView>('POST', '/views', { path, name, query }),
    sent: async ({ name }, clear) => {
      toast.success(`The view ${name} is saved, for everyone here.`)
      clear()
      await saved()
      close()
    },
  })
  return (
    <Dialog.Root open={isOpen} onOpenChange={next => !next && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className="dialog-veil" />
        <Dialog.Content className="dialog p-5" aria-describedby={undefined}>
          <Dialog.Title asChild>
            <h2 className="mb-2">Name this view</h2>
          </Dialog.Title>
          <form onSubmit={submit}>
            <TextField
              label="Name"
              hint="Everyone who signs in here finds it under this name."
              maxLength={60}
              autoFocus
              {...entry('name')}
            />
            {told}
            <NameFoot isBusy={isBusy} given={given} close={close} />
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}

interface NameFootProps {
  readonly isBusy: boolean
  readonly given: { name: string }
  readonly close: () => void
}

const NameFoot = ({ isBusy, given, close }: NameFootProps) => (
  <div className="mt-3 flex gap-2">
    <button type="submit" className="button" disabled={isBusy || given.name.trim() === ''}>
      Save
    </button>
    <button type="button" className="button quiet" onClick={close}>
      Close
    </button>
  </div>
)
