/** Quotas and file rules of shares, and what has been written of each. */
export const sql = `
alter table shares add column quotas jsonb not null default '[]';
alter table shares add column file_rules jsonb not null default '[]';
alter table shares add column quota_usage jsonb not null default '[]';
`
