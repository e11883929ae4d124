/** Until when the certificate of a directory is valid. */
export const sql = `
alter table directories add column certificate_ends_at timestamptz;
`
