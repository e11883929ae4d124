'use client'
import { useState, useSyncExternalStore } from 'react'
import { setTheme, themes, type Theme } from '../../frame/theme'
import { Choice } from '../../parts/Choice'

const words: Readonly<Record<Theme, string>> = { system: 'as my system', day: 'day', night: 'night' }
const never = () => () => undefined
const shownNow = (): Theme => themes.find(each => each === document.documentElement.dataset['theme']) ?? 'system'

/** By day or by night, or as the reader's system has it. */
export function ThemeChoice() {
  const [chosen, choose] = useState<Theme>()
  const now = useSyncExternalStore<Theme>(never, shownNow, () => 'system')
  return (
    <Choice
      label="Day and night"
      value={chosen ?? now}
      options={themes.map(value => ({ value, words: words[value] }))}
      onChange={theme => {
        setTheme(theme)
        choose(theme)
      }}
    />
  )
}
