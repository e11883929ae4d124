/**
 * Snapshots, clones and service classes. A volume may be a clone of a snapshot, which is of a volume: what is stored refers in a ring,
 * so the one is judged when the transaction ends.
 */
export const sql = `
create table service_classes (
  id uuid primary key, name text not null unique check (length(name) between 1 and 255),
  losses_survived int check (losses_survived between 0 and 4), media text not null check (media in ('any', 'SSD', 'HDD')),
  latency_milliseconds double precision check (latency_milliseconds > 0), headroom_ratio double precision check (headroom_ratio between 0 and 0.9),
  snapshot_rule text, time_zone text not null, retention jsonb not null default '{}', holding_days int check (holding_days between 1 and 365),
  made_by_step text not null unique, revision int not null default 1
);
create table snapshots (
  id uuid primary key, system_id uuid not null references systems on delete cascade, locator text not null,
  volume_id uuid references volumes on delete set null, name text not null, naa text not null,
  size_bytes numeric(25) not null check (size_bytes >= 0), taken_at timestamptz,
  state text not null check (state in ('pending', 'consistent', 'failed')), own_bytes numeric(25) not null check (own_bytes >= 0),
  held_until jsonb, reason text, due_at timestamptz, held_reason text, goes_at timestamptz,
  missing_since timestamptz, revision int not null default 1
);
create index snapshots_by_place on snapshots (system_id, locator);
create index snapshots_by_volume on snapshots (volume_id, taken_at);
create index snapshots_going on snapshots (goes_at) where goes_at is not null;
create index snapshots_by_due on snapshots (volume_id, due_at) where due_at is not null;
create index snapshots_by_name on snapshots (name text_pattern_ops, id);
create index snapshots_by_name_parts on snapshots using gin (name gin_trgm_ops);
create index snapshots_by_naa_parts on snapshots using gin (naa gin_trgm_ops);
alter table pools add column snapshot_bytes numeric(25) not null default 0;
alter table volumes add column clone_of_id uuid references snapshots on delete set null deferrable initially deferred;
alter table volumes add column class_id uuid references service_classes on delete set null;
create index volumes_by_class on volumes (class_id) where class_id is not null;
create index volumes_by_source on volumes (clone_of_id) where clone_of_id is not null;
alter table mappings alter column volume_id drop not null;
alter table mappings add column snapshot_id uuid references snapshots on delete cascade;
create index mappings_by_snapshot on mappings (snapshot_id) where snapshot_id is not null;
do $$
declare told text;
begin
  foreach told in array array['snapshots', 'service_classes'] loop
    execute format('create trigger tell_new after insert on %I referencing new table as changed for each statement execute function tell_rows()', told);
    execute format('create trigger tell_changed after update on %I referencing old table as was new table as changed for each statement execute function tell_rows()', told);
    execute format('create trigger tell_gone after delete on %I referencing old table as changed for each statement execute function tell_rows()', told);
  end loop;
end $$;
`
