const quoted = (text: string) => (/[",\n\r]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text)

/** Lines of fields as CSV. Source: RFC 4180. */
export const csvText = (lines: readonly (readonly string[])[]) =>
  lines.map(line => line.map(quoted).join(',')).join('\r\n') + '\r\n'
