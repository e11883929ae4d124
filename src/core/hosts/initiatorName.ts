/** A name by which a host logs in, and of which kind it is. */
export interface InitiatorName {
  readonly kind: 'IQN' | 'EUI' | 'NAA' | 'WWPN' | 'NQN'
  /** As it is kept: one spelling for each, so that two that are the same are the same text. */
  readonly name: string
}

/** iSCSI and NVMe names are at most so long (bytes). Sources: RFC 3720, section 3.2.6.1; NVM Express Base Specification, NQN. */
const mostBytes = 223
const domain = '[a-z0-9](?:[a-z0-9-]*[a-z0-9])?(?:\\.[a-z0-9](?:[a-z0-9-]*[a-z0-9])?)*'
const dated = (prefix: string) => new RegExp(`^${prefix}\\.\\d{4}-(?:0[1-9]|1[0-2])\\.${domain}(?::[\\x21-\\x7e]+)?$`)
const iqn = dated('iqn')
const nqn = dated('nqn')
const hexOnly = /^[0-9a-f]{16}$/

/**
 * Reads the name of an initiator: an IQN, EUI-64 or NAA name of iSCSI (RFC 3720, compared in lower case by RFC 3722), a WWPN of Fibre Channel
 * with or without its colons, or an NQN of NVMe.
 * @returns why it is none, in words, where it cannot be read
 */
export function initiatorName(text: string): InitiatorName | { readonly why: string } {
  const given = text.trim()
  const lower = given.toLowerCase()
  const shown = `"${given.slice(0, 60)}"`
  if (given.length > mostBytes) return { why: `${shown}… is longer than the ${mostBytes} bytes that a name may have.` }
  if (lower.startsWith('iqn.'))
    return iqn.test(lower)
      ? { kind: 'IQN', name: lower }
      : {
          why: `${shown} is no IQN: iqn, a year and month, a domain backwards and a name, as iqn.2026-01.example.host:disk.`,
        }
  if (lower.startsWith('nqn.'))
    return nqn.test(lower)
      ? { kind: 'NQN', name: `nqn${given.slice(3)}` }
      : { why: `${shown} is no NQN: nqn, a year and month, a domain backwards and a name.` }
  if (lower.startsWith('eui.'))
    return hexOnly.test(lower.slice(4))
      ? { kind: 'EUI', name: lower }
      : { why: `${shown} is no EUI: eui. and 16 hex digits.` }
  if (lower.startsWith('naa.'))
    return /^naa\.([0-9a-f]{16}|[0-9a-f]{32})$/.test(lower)
      ? { kind: 'NAA', name: lower }
      : { why: `${shown} is no NAA name: naa. and 16 or 32 hex digits.` }
  const digits = lower.replace(/^0x/, '').replace(/[:-]/g, '')
  if (!hexOnly.test(digits)) return { why: `${shown} is no IQN, EUI, NAA name, WWPN or NQN.` }
  if (/^(0{16}|f{16})$/.test(digits)) return { why: `${shown} names no port: all its digits are the same.` }
  return { kind: 'WWPN', name: (digits.match(/../g) ?? []).join(':') }
}
