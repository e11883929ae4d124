/** Systems with which a system has been paired. */
export const sql = `
alter table systems add column partners jsonb not null default '[]';
`
