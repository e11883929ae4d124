/** Schedules that volumes have of their own, in the place of their class's. */
export const sql = `
alter table volumes add column own_schedule jsonb;
create index volumes_by_own_schedule on volumes (system_id) where own_schedule is not null;
`
