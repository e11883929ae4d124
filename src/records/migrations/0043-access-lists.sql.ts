/** Access lists of the roots of shares. */
export const sql = `
alter table shares add column acl jsonb not null default '[]';
`
