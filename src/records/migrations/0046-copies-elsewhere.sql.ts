/** Volumes that are kept alike on another system, and classes that promise it; and who sees what is made under a class. */
export const sql = `
alter table volumes add column mirror jsonb;
alter table service_classes add column copy_within_minutes integer check (copy_within_minutes >= 0);
alter table service_classes add column default_group_id uuid references host_groups on delete set null;
`
