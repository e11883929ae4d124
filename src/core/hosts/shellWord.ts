/** Nothing in it means anything to a shell. Source: POSIX.1-2024, Shell Command Language, 2.2. */
const isPlain = /^[A-Za-z0-9_@%+=:,./-]+$/

/** A text as one word of a shell, whatever is in it: names come from systems, and whoever copies a command runs what it says. */
export const shellWord = (text: string) =>
  isPlain.test(text) && !text.startsWith('-') ? text : `'${text.replaceAll("'", `'\\''`)}'`

/** A text as one field of a table of file systems. Source: fstab(5): spaces, tabs, line ends and backslashes by their octal numbers. */
export const fstabField = (text: string) =>
  text.replace(/[\\\s#\u0000-\u001f]/g, each => `\\${each.charCodeAt(0).toString(8).padStart(3, '0')}`)
