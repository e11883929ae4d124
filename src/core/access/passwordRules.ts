/** The rules for a password, each with whether it is met: shown beside the field as it is typed, and checked again at the server. */
export function passwordRules(password: string, name: string): { readonly words: string; readonly holds: boolean }[] {
  const letters = new Set(password)
  return [
    { words: 'Has at least 12 characters', holds: password.length >= 12 },
    { words: 'Has at most 200 characters', holds: password.length > 0 && password.length <= 200 },
    { words: 'Has at least 6 different characters', holds: letters.size >= 6 },
    {
      words: 'Does not hold your name',
      holds: password.length > 0 && (name.length < 3 || !password.toLowerCase().includes(name.toLowerCase())),
    },
  ]
}

/** That the second field repeats the first. */
export const sameRule = (password: string, again: string) => ({
  words: 'Is the same in both fields',
  holds: password !== '' && password === again,
})
