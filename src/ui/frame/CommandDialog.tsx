'use client'
import { Command } from 'cmdk'
import { useRouter } from 'next/navigation'
import { Dialog } from 'radix-ui'
import { useState, type ReactNode } from 'react'
import { kindList, pageOf } from '@/core/estate'
import type { Hit } from '@/core/views'
import { commands } from './commands'
import { helpWords } from './helpWords'
import { keepRecent, recent } from './recent'
import { signOut } from './signOut'
import { sections } from './sections'
import { setTheme, toggleNight } from './theme'
import { useHits } from './useHits'

interface CommandDialogProps {
  readonly close: () => void
  readonly showKeys: () => void
}

type Open = (href: string, words: string, detail: string) => void

/** Where a hit is shown. */
function hrefOf(hit: Hit): string {
  const kind = kindList.find(each => each.words.one === hit.kind)
  return (kind === undefined ? undefined : pageOf(kind, hit)) ?? `/changes/${hit.id}`
}

/** Whether an entry holds what is looked for, as a rank. */
const holds = (entry: string, wanted: string) => (entry.toLowerCase().includes(wanted.toLowerCase()) ? 1 : 0)

/** What can be found and done: objects, pages, settings, commands, and what our words mean. */
export default function CommandDialog({ close, showKeys }: CommandDialogProps) {
  const router = useRouter()
  const [text, setText] = useState('')
  const hits = useHits(text)
  const open: Open = (href, words, detail) => {
    keepRecent({ href, words, detail })
    close()
    router.push(href)
  }
  return (
    <Dialog.Root open onOpenChange={next => !next && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className="dialog-veil" />
        <Dialog.Content className="dialog" aria-describedby={undefined}>
          <Dialog.Title className="sr-only">Search and commands</Dialog.Title>
          <Command shouldFilter label="Search and commands" filter={holds}>
            <Command.Input
              autoFocus
              value={text}
              onValueChange={setText}
              placeholder="A name, serial number, WWN or command"
              className="w-full border-0 border-b border-rule bg-transparent px-[14px] py-3 text-[15px] outline-none"
            />
            <Command.List className="max-h-[380px] overflow-auto py-1">
              <Command.Empty>Nothing has that name, serial number or WWN.</Command.Empty>
              {hits.length > 0 && <Found hits={hits} text={text} open={open} />}
              {text === '' && <Recent open={open} />}
              <Pages open={open} />
              <Commands open={open} close={close} showKeys={showKeys} />
              <Words />
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}

const Line = ({ words, detail }: { readonly words: string; readonly detail: ReactNode }) => (
  <>
    <span className="truncate">{words}</span>
    <span className="shrink-0 text-faint">{detail}</span>
  </>
)

interface FoundProps {
  readonly hits: readonly Hit[]
  readonly text: string
  readonly open: Open
}

const Found = ({ hits, text, open }: FoundProps) => (
  <Command.Group heading="Found">
    {hits.map(hit => (
      <Command.Item
        key={`${hit.kind}/${hit.id}`}
        value={`${text} ${hit.kind} ${hit.name} ${hit.id}`}
        onSelect={() => open(hrefOf(hit), hit.name, hit.kind)}
      >
        <Line words={hit.name} detail={hit.kind} />
      </Command.Item>
    ))}
  </Command.Group>
)

function Recent({ open }: { readonly open: Open }) {
  const [latest] = useState(recent)
  if (latest.length === 0) return null
  return (
    <Command.Group heading="Recent">
      {latest.map(each => (
        <Command.Item
          key={each.href}
          value={`recent ${each.words}`}
          onSelect={() => open(each.href, each.words, each.detail)}
        >
          <Line words={each.words} detail={each.detail} />
        </Command.Item>
      ))}
    </Command.Group>
  )
}

const Pages = ({ open }: { readonly open: Open }) => (
  <Command.Group heading="Go to">
    {[...sections, { key: '0', href: '/changes', words: 'Changes' }].map(section => (
      <Command.Item key={section.href} value={section.words} onSelect={() => open(section.href, section.words, 'page')}>
        <span>{section.words}</span>
        <kbd>{section.key}</kbd>
      </Command.Item>
    ))}
  </Command.Group>
)

function Commands({ open, close, showKeys }: CommandDialogProps & { readonly open: Open }) {
  const own: readonly { readonly words: string; readonly act: () => void; readonly keyName?: string }[] = [
    { words: 'Night round or day', act: toggleNight },
    { words: 'Day and night as my system has them', act: () => setTheme('system') },
    { words: 'List of keys', act: showKeys, keyName: '?' },
    { words: 'Sign out', act: () => void signOut() },
  ]
  return (
    <Command.Group heading="Commands">
      {commands.map(({ href, words, detail }) => (
        <Command.Item key={words} value={words} onSelect={() => open(href, words, detail)}>
          <span>{words}</span>
          <span className="text-faint">{detail}</span>
        </Command.Item>
      ))}
      {own.map(({ words, act, keyName }) => (
        <Command.Item
          key={words}
          value={words}
          onSelect={() => {
            close()
            act()
          }}
        >
          <span>{words}</span>
          {keyName !== undefined && <kbd>{keyName}</kbd>}
        </Command.Item>
      ))}
    </Command.Group>
  )
}

const Words = () => (
  <Command.Group heading="Words">
    {helpWords.map(([word, meaning]) => (
      <Command.Item key={word} value={`${word} ${meaning}`} className="items-baseline">
        <span className="w-[130px] shrink-0 font-semibold">{word}</span>
        <span className="flex-1 text-second">{meaning}</span>
      </Command.Item>
    ))}
  </Command.Group>
)
