export const themes = ['system', 'day', 'night'] as const
/** Day, night, or as the reader's system has it. */
export type Theme = (typeof themes)[number]

/** Kept in a cookie, so that the server draws the page right at once. */
export function setTheme(theme: Theme): void {
  document.documentElement.dataset['theme'] = theme
  document.cookie = `theme=${theme}; path=/; max-age=31536000; samesite=lax`
}

const isNight = () =>
  document.documentElement.dataset['theme'] === 'night' ||
  (document.documentElement.dataset['theme'] === 'system' && matchMedia('(prefers-color-scheme: dark)').matches)

/** The other of day and night than is shown now. */
export const toggleNight = () => setTheme(isNight() ? 'day' : 'night')

export const marginEvent = 'wendrel:fold-margin'
