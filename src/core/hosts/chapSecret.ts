const least = 12
const most = 16

/**
 * Why a text cannot be the secret of a sign-in by CHAP; undefined where it can.
 * Source: RFC 7143, 12.1.3: at least 96 bits where nothing else protects the exchange, and every system takes 128.
 */
export function chapSecretTrouble(text: string): string | undefined {
  if (!/^[\x21-\x7e]*$/.test(text))
    return 'A secret for CHAP is of letters, digits and signs of ASCII, without spaces: systems take others differently.'
  if (text.length < least)
    return `A secret for CHAP has at least ${least} characters (96 bits, RFC 7143); this one has ${text.length}.`
  if (text.length > most)
    return `A secret for CHAP has at most ${most} characters (128 bits): more is not taken by every system.`
  return new Set(text).size < 5 ? 'It repeats a few characters: whoever listens once would guess it.' : undefined
}
