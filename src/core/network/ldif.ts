/** What may stand as it is. Source: RFC 2849, SAFE-STRING. */
const isSafe =
  /^[\u0001-\u0009\u000b\u000c\u000e-\u001f\u0021-\u0039\u003b\u003d-\u007f][\u0001-\u0009\u000b\u000c\u000e-\u007f]*$/

/** An attribute with its value, in base64 where it could be taken for something else. */
const line = (name: string, value: string) =>
  isSafe.test(value) && !value.endsWith(' ')
    ? `${name}: ${value}`
    : `${name}:: ${btoa(String.fromCharCode(...new TextEncoder().encode(value)))}`

/** A script that adds values to an attribute of one entry of a directory, or takes them away. Source: RFC 2849. */
export const modifyScript = (
  dn: string,
  what: 'add' | 'delete',
  attribute: string,
  values: readonly string[],
): string =>
  [
    'version: 1',
    '',
    line('dn', dn),
    'changetype: modify',
    `${what}: ${attribute}`,
    ...values.map(value => line(attribute, value)),
    '-',
    '',
  ].join('\n')
