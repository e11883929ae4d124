/** What a spreadsheet takes for a formula and carries out; a number is none. */
const isFormula = (text: string) => /^[=+\-@\t\r]/.test(text) && !Number.isFinite(Number(text))
const quoted = (text: string) => (/[",\n\r]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text)

/**
 * Lines of fields as CSV. Names in them come from whoever may name a file or a system: one that would be carried out as a formula gets an
 * apostrophe before it, as a spreadsheet marks text. Sources: RFC 4180; OWASP, CSV injection.
 */
export const csvText = (lines: readonly (readonly string[])[]): string =>
  lines.map(line => line.map(text => quoted(isFormula(text) ? `'${text}` : text)).join(',')).join('\r\n') + '\r\n'
