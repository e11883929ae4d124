'use client'
import { useHotkeys, type Options } from 'react-hotkeys-hook'
import { sections } from './sections'
import { marginEvent } from './theme'

interface KeyActions {
  readonly onCommands: () => void
  readonly onKeys: () => void
  readonly go: (href: string) => void
}

/** Where a letter is typed, or picks something: there it is no key of the page. */
const typed = 'input, textarea, select, [contenteditable="true"], [role="combobox"], [role="listbox"], [role="menu"]'
const isTyping = ({ target }: KeyboardEvent) => target instanceof Element && target.closest(typed) !== null
const isElsewhere = (event: KeyboardEvent) =>
  isTyping(event) ||
  event.ctrlKey ||
  event.metaKey ||
  event.altKey ||
  document.querySelector('[role="dialog"], [role="alertdialog"], [role="listbox"], [role="menu"]') !== null

/** By what is written on the key, whatever the layout of the keyboard asks for to reach it. */
const plain: Options = { useKey: true, ignoreModifiers: true, ignoreEventWhen: isElsewhere, preventDefault: true }
const everywhere: Options = { useKey: true, enableOnFormTags: true, enableOnContentEditable: true }

/** The keys that hold everywhere. A field that is being typed in keeps all of them but Ctrl K, Shift Enter and Escape. */
export function useKeys({ onCommands, onKeys, go }: KeyActions): void {
  useHotkeys('mod+k', onCommands, { ...everywhere, preventDefault: true })
  useHotkeys('shift+enter', event => press('[data-key="carry-out"]', event), everywhere)
  useHotkeys('escape', event => leave(event), { ...everywhere, ignoreEventWhen: event => !isTyping(event) })
  useHotkeys(
    [...sections.map(section => section.key), '0'],
    event => go(sections.find(section => section.key === event.key)?.href ?? '/changes'),
    plain,
  )
  useHotkeys('/', onCommands, plain)
  useHotkeys('?', onKeys, plain)
  useHotkeys('.', () => window.dispatchEvent(new Event(marginEvent)), plain)
  useHotkeys('n', event => press('[data-key="new"]', event), { ...plain, preventDefault: false })
  useHotkeys('e', () => document.querySelector<HTMLElement>(firstField)?.focus(), plain)
  useHotkeys('j', () => moveRow(1), plain)
  useHotkeys('k', () => moveRow(-1), plain)
}

const firstField = '[data-margin] :is(input, textarea, [role="combobox"]):not([type=hidden], [aria-hidden="true"])'

function leave({ target }: KeyboardEvent): void {
  // A list that is open closes by itself; the field that has it stays.
  if (target instanceof HTMLElement && target.getAttribute('aria-expanded') !== 'true') target.blur()
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
