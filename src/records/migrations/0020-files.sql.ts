/** File services and shares, and by which addresses hosts are known on the network. */
export const sql = `
create table file_services (
  id uuid primary key, system_id uuid not null references systems on delete cascade, locator text not null, name text not null,
  name_servers jsonb not null, search_suffixes jsonb not null, instances jsonb not null, missing_since timestamptz, revision int not null default 1
);
create index file_services_by_place on file_services (system_id, locator);
create index file_services_by_name on file_services (name text_pattern_ops, id);
create index file_services_by_name_parts on file_services using gin (name gin_trgm_ops);
create table shares (
  id uuid primary key, system_id uuid not null references systems on delete cascade, locator text not null,
  file_service_id uuid not null references file_services on delete cascade, volume_id uuid not null references volumes on delete cascade,
  name text not null, path text not null, protocols jsonb not null, owner_uid float8 not null, owner_gid float8 not null, mode text not null,
  rules jsonb not null, size_bytes numeric not null, used_bytes numeric not null, missing_since timestamptz, revision int not null default 1
);
create index shares_by_place on shares (system_id, locator);
create index shares_by_name on shares (name text_pattern_ops, id);
create index shares_by_name_parts on shares using gin (name gin_trgm_ops);
create index shares_by_path_parts on shares using gin (path gin_trgm_ops);
create index shares_by_volume on shares (volume_id);
create index shares_by_service on shares (file_service_id);
alter table systems add column file_units jsonb not null default '[]';
alter table hosts add column addresses jsonb not null default '[]';
do $$ declare told text; begin
  foreach told in array array['file_services', 'shares'] loop
    execute format('create trigger tell_new after insert on %I referencing new table as changed for each statement execute function tell_rows()', told);
    execute format('create trigger tell_changed after update on %I referencing old table as was new table as changed for each statement execute function tell_rows()', told);
    execute format('create trigger tell_gone after delete on %I referencing old table as changed for each statement execute function tell_rows()', told);
  end loop;
end $$;
`
