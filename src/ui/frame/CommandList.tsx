'use client'
import { Command } from 'cmdk'
import { Search } from 'lucide-react'
import { useRouter } from 'next/navigation'
import { Dialog } from 'radix-ui'
import { useEffect, useState } from 'react'
import { kindList, pageOf } from '@/core/estate'
import type { Hit } from '@/core/views'
import { ask } from '../api'
import { KeyList } from './KeyList'
import { forgetRecent, keepRecent, recent } from './recent'
import { commands, sections } from './sections'
import { helpWords } from './helpWords'
import { setTheme, toggleNight } from './theme'
import { useKeys } from './useKeys'

/** Where a hit is shown. */
function hrefOf(hit: Hit): string {
  const kind = kindList.find(each => each.words.one === hit.kind)
  return (kind === undefined ? undefined : pageOf(kind, hit)) ?? `/changes/${hit.id}`
}

/** Search and commands in one list: `/` or Ctrl K opens it. */
export function CommandList() {
  const router = useRouter()
  const [isOpen, setOpen] = useState(false)
  const [isKeysOpen, setKeysOpen] = useState(false)
  const [text, setText] = useState('')
  const [hits, setHits] = useState<readonly Hit[]>([])
  useKeys({ onCommands: () => setOpen(true), onKeys: () => setKeysOpen(true), go: href => router.push(href) })

  useEffect(() => {
    const stop = new AbortController()
    const timer = setTimeout(async () => {
      if (text.trim().length < 2) return setHits([])
      const found = await ask<{ items: Hit[] }>(
        'GET',
        `/search?text=${encodeURIComponent(text)}`,
        undefined,
        stop.signal,
      )
      if (found.ok && !stop.signal.aborted) setHits(found.value.items)
    }, 120)
    return () => {
      clearTimeout(timer)
      stop.abort()
    }
  }, [text])

  const latest = isOpen && text === '' ? recent() : []
  const open = (href: string, words: string, detail: string) => {
    keepRecent({ href, words, detail })
    setOpen(false)
    setText('')
    router.push(href)
  }
  const signOut = async () => {
    await ask('DELETE', '/session')
    forgetRecent()
    window.location.assign('/sign-in')
  }
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
      <Dialog.Root
        open={isOpen}
        onOpenChange={next => {
          setOpen(next)
          if (!next) setText('')
        }}
      >
        <Dialog.Portal>
          <Dialog.Overlay className="dialog-veil" />
          <Dialog.Content className="dialog" aria-describedby={undefined}>
            <Dialog.Title className="sr-only">Search and commands</Dialog.Title>
            <Command
              shouldFilter
              label="Search and commands"
              filter={(value, wanted) => (value.toLowerCase().includes(wanted.toLowerCase()) ? 1 : 0)}
            >
              <Command.Input
                autoFocus
                value={text}
                onValueChange={setText}
                placeholder="A name, serial number, WWN or command"
                className="w-full border-0 border-b border-rule bg-transparent px-[14px] py-3 text-[15px] outline-none"
              />
              <Command.List className="max-h-[380px] overflow-auto py-1">
                <Command.Empty>Nothing has that name, serial number or WWN.</Command.Empty>
                {hits.length > 0 && (
                  <Command.Group heading="Found">
                    {hits.map(hit => (
                      <Command.Item
                        key={`${hit.kind}/${hit.id}`}
                        value={`${text} ${hit.kind} ${hit.name} ${hit.id}`}
                        onSelect={() => open(hrefOf(hit), hit.name, hit.kind)}
                      >
                        <span className="truncate">{hit.name}</span>
                        <span className="shrink-0 text-faint">{hit.kind}</span>
                      </Command.Item>
                    ))}
                  </Command.Group>
                )}
                {latest.length > 0 && (
                  <Command.Group heading="Recent">
                    {latest.map(each => (
                      <Command.Item
                        key={each.href}
                        value={`recent ${each.words}`}
                        onSelect={() => open(each.href, each.words, each.detail)}
                      >
                        <span className="truncate">{each.words}</span>
                        <span className="shrink-0 text-faint">{each.detail}</span>
                      </Command.Item>
                    ))}
                  </Command.Group>
                )}
                <Command.Group heading="Go to">
                  {[...sections, { key: '0', href: '/changes', words: 'Changes' }].map(section => (
                    <Command.Item
                      key={section.href}
                      value={section.words}
                      onSelect={() => open(section.href, section.words, 'page')}
                    >
                      <span>{section.words}</span>
                      <kbd>{section.key}</kbd>
                    </Command.Item>
                  ))}
                </Command.Group>
                <Command.Group heading="Commands">
                  {commands.map(command => (
                    <Command.Item
                      key={command.href}
                      value={command.words}
                      onSelect={() => open(command.href, command.words, command.detail)}
                    >
                      <span>{command.words}</span>
                      <span className="text-faint">{command.detail}</span>
                    </Command.Item>
                  ))}
                  <Command.Item
                    value="Night round or day"
                    onSelect={() => {
                      toggleNight()
                      setOpen(false)
                      setText('')
                    }}
                  >
                    Night round or day
                  </Command.Item>
                  <Command.Item
                    value="Day and night as my system has them"
                    onSelect={() => {
                      setTheme('system')
                      setOpen(false)
                      setText('')
                    }}
                  >
                    Day and night as my system has them
                  </Command.Item>
                  <Command.Item value="List of keys" onSelect={() => setKeysOpen(true)}>
                    <span>List of keys</span>
                    <kbd>?</kbd>
                  </Command.Item>
                  <Command.Item value="Sign out" onSelect={() => void signOut()}>
                    Sign out
                  </Command.Item>
                </Command.Group>
                <Command.Group heading="Words">
                  {helpWords.map(([word, meaning]) => (
                    <Command.Item key={word} value={`${word} ${meaning}`} className="items-baseline">
                      <span className="w-[130px] shrink-0 font-semibold">{word}</span>
                      <span className="flex-1 text-second">{meaning}</span>
                    </Command.Item>
                  ))}
                </Command.Group>
              </Command.List>
            </Command>
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>
      <KeyList isOpen={isKeysOpen} onOpenChange={setKeysOpen} />
    </>
  )
}
