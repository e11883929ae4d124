/** What people say of shares: labels, and from which fill on they want to be warned. */
export const sql = `
alter table shares add column labels jsonb not null default '[]', add column warn_percent int check (warn_percent between 1 and 99);
`
