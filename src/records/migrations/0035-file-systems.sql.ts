/** File systems that systems keep on volumes, shared or not. */
export const sql = `
create table file_systems (
  id uuid primary key, system_id uuid not null references systems on delete cascade, locator text not null,
  volume_id uuid not null references volumes on delete cascade, name text not null, size_bytes numeric not null, used_bytes numeric not null,
  share_count int not null, missing_since timestamptz, revision int not null default 1
);
create index file_systems_by_place on file_systems (system_id, locator);
create index file_systems_by_name on file_systems (name text_pattern_ops, id);
create index file_systems_by_name_parts on file_systems using gin (name gin_trgm_ops);
create index file_systems_by_volume on file_systems (volume_id);
create trigger tell_new after insert on file_systems referencing new table as changed for each statement execute function tell_rows();
create trigger tell_changed after update on file_systems referencing old table as was new table as changed for each statement execute function tell_rows();
create trigger tell_gone after delete on file_systems referencing old table as changed for each statement execute function tell_rows();
`
