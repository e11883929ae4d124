import { storable } from '@/core/input'

const mostCharacters = 500

/**
 * The parameters of a page's address as the page takes them: each once, as a text that can be looked for. What is written into an
 * address by hand is read as well as it can be; it is only ever looked up, never stored.
 */
export async function onlyTexts<Params extends Readonly<Record<string, string | undefined>>>(
  searchParams: Promise<Params>,
): Promise<Params> {
  const given: Readonly<Record<string, string | readonly string[] | undefined>> = await searchParams
  return Object.fromEntries(
    Object.entries(given).map(([name, value]) => {
      const text = typeof value === 'string' ? value : value?.[0]
      return [name, text === undefined ? undefined : storable(text).slice(0, mostCharacters)]
    }),
  ) as Params
}
