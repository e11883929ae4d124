'use client'
import { useEffect } from 'react'
import { sections } from './sections'
import { marginEvent } from './theme'

interface KeyActions {
  readonly onCommands: () => void
  readonly onKeys: () => void
  readonly go: (href: string) => void
}

const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement && (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) || target.isContentEditable)

/** The keys that hold everywhere. A field that is being typed in keeps all of them but Ctrl K, Shift Enter and Escape. */
export function useKeys(actions: KeyActions): void {
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault()
        return actions.onCommands()
      }
      if (event.shiftKey && event.key === 'Enter') return press('[data-key="carry-out"]', event)
      if (isTyping(event.target)) {
        if (event.key === 'Escape') (event.target as HTMLElement).blur()
        return
      }
      if (event.ctrlKey || event.metaKey || event.altKey || document.querySelector('[role="dialog"]') !== null) return
      const section = sections.find(each => each.key === event.key)
      if (section !== undefined) return actions.go(section.href)
      if (event.key === '0') return actions.go('/changes')
      if (event.key === '/') return take(event, actions.onCommands)
      if (event.key === '?') return take(event, actions.onKeys)
      if (event.key === '.') return take(event, () => window.dispatchEvent(new Event(marginEvent)))
      if (event.key === 'n') return press('[data-key="new"]', event)
      if (event.key === 'e')
        return take(event, () =>
          document.querySelector<HTMLElement>('[data-margin] :is(input, select, textarea):not([type=hidden])')?.focus(),
        )
      if (event.key === 'j' || event.key === 'k') take(event, () => moveRow(event.key === 'j' ? 1 : -1))
    }
    window.addEventListener('keydown', pressed)
    return () => window.removeEventListener('keydown', pressed)
  })
}

function take(event: KeyboardEvent, act: () => void): void {
  event.preventDefault()
  act()
}

function press(selector: string, event: KeyboardEvent): void {
  const button = document.querySelector<HTMLElement>(selector)
  if (button === null || button.matches(':disabled')) return
  event.preventDefault()
  button.click()
}

/** Moves the focus among what stands as a row, from wherever it is. */
function moveRow(by: number): void {
  const rows = [...document.querySelectorAll<HTMLElement>('[data-row]')]
  const at = rows.findIndex(row => row === document.activeElement || row.contains(document.activeElement))
  const next = rows[Math.max(0, Math.min(rows.length - 1, at < 0 ? 0 : at + by))]
  next?.focus()
}
