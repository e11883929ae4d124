import { existsSync } from 'node:fs'

/** Debian's Chromium without its windows, which takes half as much of a processor; the whole one where only that is there. */
export const chromium =
  ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'].find(existsSync) ?? '/usr/bin/chromium-headless-shell'
