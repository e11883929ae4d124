/** Day or night: kept in a cookie, so that the server draws the page right at once. */
export function toggleNight(): void {
  const next = document.documentElement.dataset['theme'] === 'night' ? 'day' : 'night'
  document.documentElement.dataset['theme'] = next
  document.cookie = `theme=${next}; path=/; max-age=31536000; samesite=lax`
}

export const marginEvent = 'wendrel:fold-margin'
