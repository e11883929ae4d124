/** Grants over SMB that are for all shares of a file service. */
export const sql = `
alter table file_services add column grants jsonb not null default '[]';
alter table shares add column service_grants jsonb not null default '[]';
`
