/** An hour of a week in words, in UTC as it was measured: `Mon, May 4, 11:00`. */
export const hourWords = (at: number): string =>
  new Date(at).toLocaleString('en', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
    timeZone: 'UTC',
  })
