import type { PlanCheck } from '../plan'

const nameRule = /^[A-Za-z0-9](?:[A-Za-z0-9._-]{0,61}[A-Za-z0-9])?$/

/** The rule for names of pools, volumes and systems: they go into commands, device names and file names. */
export function nameCheck(name: string, what: string): PlanCheck {
  const holds = nameRule.test(name)
  return {
    rule: 'name',
    field: 'name',
    holds,
    level: 'must',
    why: holds
      ? `"${name}" is a good name for ${what}.`
      : name === ''
        ? `Give ${what} a name.`
        : 'A name has 1 to 63 letters, digits, dots, hyphens or underscores, and begins and ends with a letter or digit.',
  }
}

/**
 * The next free name by a pattern such as `{group}-{purpose}-{nn}`; `{nn}` counts from 01 past all taken names.
 * @param words what stands for each word of the pattern; empty ones drop out with their hyphen
 */
export function nameByPattern(
  pattern: string,
  words: Readonly<Record<string, string>>,
  taken: ReadonlySet<string>,
): string {
  const standsFor = (word: string) => (Object.hasOwn(words, word) ? (words[word] ?? '') : '')
  const filled = pattern
    .replace(/\{([a-z]+)\}/g, (whole, word: string) => (word === 'nn' ? whole : plain(standsFor(word))))
    .replace(/-{2,}/g, '-')
    .replace(/^-|-$/g, '')
  if (!filled.includes('{nn}')) return filled
  for (let number = 1; ; number += 1) {
    const name = filled.replace('{nn}', String(number).padStart(2, '0'))
    if (!taken.has(name)) return name
  }
}

/** What stands before the number, by which taken names are looked up. */
export function namePrefix(pattern: string, words: Readonly<Record<string, string>>): string {
  return nameByPattern(pattern.replace('{nn}', '\u0000'), words, new Set()).split('\u0000')[0] ?? ''
}

const plain = (word: string) =>
  word
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 40)
