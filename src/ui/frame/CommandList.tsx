'use client'
import { Search } from 'lucide-react'
import { useRouter } from 'next/navigation'
import { lazy, Suspense, useState } from 'react'
import { useKeys } from './useKeys'

// What search and commands need is read when they are opened first: no page waits for it.
const CommandDialog = lazy(() => import('./CommandDialog'))
const KeyList = lazy(() => import('./KeyList'))

/** Search and commands in one list: `/` or Ctrl K opens it. */
export function CommandList() {
  const router = useRouter()
  const [isOpen, setOpen] = useState(false)
  const [isKeysOpen, setKeysOpen] = useState(false)
  useKeys({ onCommands: () => setOpen(true), onKeys: () => setKeysOpen(true), go: href => router.push(href) })
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        aria-label="Find anything"
        className="ml-4 flex h-[26px] w-[170px] items-center justify-between rounded-sm border border-rule bg-sheet px-2 text-faint max-md:ml-2 max-md:w-8 max-md:justify-center max-[1100px]:w-[110px]"
      >
        <Search aria-hidden size={13} className="md:hidden" />
        <span className="truncate max-md:hidden">Find anything</span>
        <kbd className="max-md:hidden">/</kbd>
      </button>
      <Suspense>
        {isOpen && <CommandDialog close={() => setOpen(false)} showKeys={() => setKeysOpen(true)} />}
        {isKeysOpen && <KeyList isOpen onOpenChange={setKeysOpen} />}
      </Suspense>
    </>
  )
}
