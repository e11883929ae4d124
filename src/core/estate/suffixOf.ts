/** The last four characters of a drive's serial number, as they stand on its label and on the drawn bay. */
export const suffixOf = (serial: string) => serial.slice(-4).toUpperCase()
