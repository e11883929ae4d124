const small = [
  'no',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
] as const

/** A number of things as a sentence says it: `two pools`, `1,204 volumes`. */
export function countWords(count: number, one: string, many: string): string {
  return `${small[count] ?? count.toLocaleString('en')} ${count === 1 ? one : many}`
}

/** The same at the beginning of a sentence: `Two pools`. */
export function countAtStart(count: number, one: string, many: string): string {
  const words = countWords(count, one, many)
  return words.charAt(0).toUpperCase() + words.slice(1)
}
