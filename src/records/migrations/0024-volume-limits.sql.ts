/** What systems let volumes be asked for; null where a system takes no limits. */
export const sql = `
alter table volumes add column limits jsonb;
`
