/** Groups of volumes whose snapshots are of one instant. */
export const sql = `
create table consistency_groups (
  id uuid primary key, system_id uuid not null references systems on delete cascade, locator text not null,
  name text not null, volume_count int not null check (volume_count >= 0),
  missing_since timestamptz, revision int not null default 1
);
create index consistency_groups_by_place on consistency_groups (system_id, locator);
create index consistency_groups_by_name on consistency_groups (name text_pattern_ops, id);
create index consistency_groups_by_name_parts on consistency_groups using gin (name gin_trgm_ops);
alter table volumes add column consistency_group_id uuid references consistency_groups on delete set null;
create index volumes_by_consistency_group on volumes (consistency_group_id) where consistency_group_id is not null;
create trigger tell_new after insert on consistency_groups referencing new table as changed for each statement execute function tell_rows();
create trigger tell_changed after update on consistency_groups referencing old table as was new table as changed for each statement execute function tell_rows();
create trigger tell_gone after delete on consistency_groups referencing old table as changed for each statement execute function tell_rows();
`
