/** One value of a family, with what names it. */
export interface ExposedValue {
  readonly labels: Readonly<Record<string, string>>
  readonly value: number
  /** When it was measured (milliseconds since 1970). */
  readonly at?: number
}

/** Values of one name. */
export interface ExposedFamily {
  /** Letters, digits and underscores; ends with its unit. */
  readonly name: string
  readonly unit: string
  readonly help: string
  readonly values: Iterable<ExposedValue>
}

export const openMetricsType = 'application/openmetrics-text; version=1.0.0; charset=utf-8'

/** Names from outside stand in quotes, so that no name can end its line or begin another. */
const escaped = (text: string) => text.replaceAll('\\', '\\\\').replaceAll('"', '\\"').replaceAll('\n', '\\n')

function* lines({ name, unit, help, values }: ExposedFamily): Generator<string> {
  yield `# TYPE ${name} gauge\n# UNIT ${name} ${unit}\n# HELP ${name} ${escaped(help)}\n`
  for (const { labels, value, at } of values) {
    const named = Object.entries(labels).map(([key, text]) => `${key}="${escaped(text)}"`)
    yield `${name}{${named.join(',')}} ${value}${at === undefined ? '' : ` ${at / 1000}`}\n`
  }
}

/** Gauges as text. Source: OpenMetrics 1.0, text format. */
export function openMetrics(families: readonly ExposedFamily[]): string {
  const parts: string[] = []
  for (const family of families) for (const line of lines(family)) parts.push(line)
  return `${parts.join('')}# EOF\n`
}
