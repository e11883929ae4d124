/** Changes that wait give their slot back; who collects; one clock by agreement; what is missing stays on record. */
export const sql = `
create table change_waits (
  change_id uuid primary key references changes on delete cascade, step_index int not null,
  -- a task of a system, which its poller watches; or a moment after which it is tried again
  system_id uuid references systems on delete set null, task text, words text not null default '', began_at timestamptz not null default now(),
  again_at timestamptz, failing jsonb not null default '{}', done_ratio double precision not null default 0, told_at timestamptz
);
create index change_waits_by_system on change_waits (system_id) where task is not null;

alter table change_journal drop constraint change_journal_event_check;
alter table change_journal add constraint change_journal_event_check check (event in ('begun', 'progress', 'waited', 'done', 'failed', 'undone'));
alter table change_journal add column wait_wall_seconds double precision;
alter table change_journal add column waited_seconds double precision;
create unique index change_journal_once on change_journal (change_id, step_index, event) where event in ('begun', 'done', 'undone');
create unique index change_journal_waited_once on change_journal (change_id, (facts ->> 'waitedFor')) where event = 'waited';

alter table evidence add column attempt int not null default 1;
alter table changes add column attempt int not null default 0;
alter table changes add column took_seconds double precision;
create index changes_of_volume on changes ((intent ->> 'volumeId')) where intent ? 'volumeId';

create table workers (id uuid primary key, started_at timestamptz not null default now(), seen_at timestamptz not null default now());

create table estate_clock (
  only_one boolean primary key default true check (only_one), wall_at timestamptz not null, estate_at timestamptz not null,
  rate double precision not null
);
alter table systems drop column clock_wall_at, drop column clock_system_at, drop column clock_rate;
drop trigger revision on systems;
create trigger revision before update on systems for each row execute function
  bump_revision('{revision,seen_at,reach,reach_why,reach_code,sensors,read_number,access_groups}');
alter table systems add column reach_code text;
alter table systems add column access_groups jsonb not null default '[]';
alter table systems add column read_number bigint not null default 0;
create sequence readings;

alter table findings add column source text not null default 'row';

alter table controllers add column missing_since timestamptz;
alter table enclosures add column missing_since timestamptz;
alter table pools add column missing_since timestamptz;
alter table drives add column missing_since timestamptz;
alter table ports add column missing_since timestamptz;
alter table volumes add column missing_since timestamptz;
alter table mappings add column missing_since timestamptz;
alter table nodes add column missing_since timestamptz;
alter table switches add column missing_since timestamptz;
alter table switch_ports add column missing_since timestamptz;
alter table node_ports add column missing_since timestamptz;
-- A place is an address only: another object may stand where one that is missing stood.
alter table controllers drop constraint controllers_system_id_locator_key;
alter table enclosures drop constraint enclosures_system_id_locator_key;
alter table pools drop constraint pools_system_id_locator_key;
alter table drives drop constraint drives_system_id_locator_key;
alter table ports drop constraint ports_system_id_locator_key;
alter table volumes drop constraint volumes_system_id_locator_key;
alter table mappings drop constraint mappings_system_id_locator_key;
alter table nodes drop constraint nodes_system_id_locator_key;
alter table switches drop constraint switches_system_id_locator_key;
alter table switch_ports drop constraint switch_ports_system_id_locator_key;
alter table node_ports drop constraint node_ports_system_id_locator_key;
create index controllers_by_place on controllers (system_id, locator);
create index enclosures_by_place on enclosures (system_id, locator);
create index pools_by_place on pools (system_id, locator);
create index drives_by_place on drives (system_id, locator);
create index ports_by_place on ports (system_id, locator);
create index volumes_by_place on volumes (system_id, locator);
create index mappings_by_place on mappings (system_id, locator);
create index nodes_by_place on nodes (system_id, locator);
create index switches_by_place on switches (system_id, locator);
create index switch_ports_by_place on switch_ports (system_id, locator);
create index node_ports_by_place on node_ports (system_id, locator);
create index volumes_missing on volumes (system_id) where missing_since is not null;
create index drives_missing on drives (system_id) where missing_since is not null;
`
