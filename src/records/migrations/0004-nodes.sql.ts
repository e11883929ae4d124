/** Rows of nodes: their network, what drives carry from earlier, findings with their exceptions, firmware catalogues, and rebuilds. */
export const sql = `
alter table systems add column cluster_name text;
alter table pools add column failure_domain text check (failure_domain in ('node', 'enclosure', 'rack'));
alter table pools add column rebuild_reserve_bytes numeric(25) not null default 0;
alter table volumes add column lost_bytes numeric(25) not null default 0;

create table nodes (
  id uuid primary key, system_id uuid not null references systems on delete cascade, locator text not null, name text not null,
  host_name text, rack text, enclosure_id uuid references enclosures on delete set null,
  state text not null check (state in ('fine', 'not answering')), firmware text, model text, clock_offset_seconds double precision not null,
  is_restart_service_on boolean not null, most_capacity_drives int not null check (most_capacity_drives >= 0),
  memory_bytes double precision not null, agent_address text, revision int not null default 1, unique (system_id, locator)
);

create table switches (
  id uuid primary key, system_id uuid not null references systems on delete cascade, locator text not null, name text not null,
  model text, firmware text, revision int not null default 1, unique (system_id, locator)
);

create table switch_ports (
  id uuid primary key, system_id uuid not null references systems on delete cascade, locator text not null,
  switch_id uuid not null references switches on delete cascade, name text not null, mtu int not null check (mtu >= 0),
  vlans jsonb not null default '[]', is_up boolean not null, peer_port_id uuid, revision int not null default 1, unique (system_id, locator)
);

create table node_ports (
  id uuid primary key, system_id uuid not null references systems on delete cascade, locator text not null,
  node_id uuid not null references nodes on delete cascade, name text not null, mac text not null, speed_bits_per_second double precision not null,
  is_up boolean not null, mtu int not null check (mtu >= 0), traffic jsonb not null default '[]', switch_port_id uuid, storage jsonb,
  revision int not null default 1, unique (system_id, locator)
);
create index node_ports_by_node on node_ports (node_id);

alter table drives add column node_id uuid references nodes on delete set null;
alter table drives add column is_boot boolean not null default false;
alter table drives add column is_lit boolean not null default false;
alter table drives add column drive_writes_per_day double precision;
alter table drives add column left_over jsonb;
alter table drives add column bank int;
alter table drives drop constraint drives_role_check;
alter table drives add constraint drives_role_check check (role in ('unassigned', 'data', 'spare', 'cache'));
drop trigger revision on drives;
create trigger revision before update on drives for each row execute function bump_revision('{revision,power_on_hours,wear_ratio,is_lit}');
drop trigger revision on volumes;
create trigger revision before update on volumes for each row execute function bump_revision('{revision,written_bytes,lost_bytes}');

create table path_probes (
  system_id uuid primary key references systems on delete cascade, at timestamptz not null, wanted_mtu int not null, answers jsonb not null
);

create table name_answers (
  query text not null, kind text not null check (kind in ('forward', 'reverse')), answers jsonb not null, why text, at timestamptz not null,
  primary key (query, kind)
);

create table signed_exceptions (
  id uuid primary key, sign_key text not null unique, finding_key text not null, reason text not null check (length(reason) between 1 and 1000),
  signed_by text not null, signed_at timestamptz not null default now(), until timestamptz not null
);
create index signed_exceptions_by_finding on signed_exceptions (finding_key, until);

create table catalogues (
  id uuid primary key, import_key text not null unique, maker text not null, issued_at timestamptz not null, body jsonb not null,
  imported_by text not null, imported_at timestamptz not null default now()
);
create index catalogues_by_maker on catalogues (maker, issued_at desc);

create table findings (
  id bigint generated always as identity primary key, key text not null, system_id uuid not null references systems on delete cascade,
  body jsonb not null, since timestamptz not null default now(), cleared_at timestamptz
);
create unique index findings_standing on findings (key) where cleared_at is null;
create index findings_by_system on findings (system_id, since desc);

create table rebuilds (
  id uuid primary key, system_id uuid not null references systems on delete cascade, locator text not null,
  pool_id uuid references pools on delete set null, kind text not null check (kind in ('rebuild', 'move')), bytes numeric(25) not null,
  base_seconds double precision not null, p10_seconds double precision not null, p50_seconds double precision not null,
  p90_seconds double precision not null, bound_by text not null, started_estate_at timestamptz not null, done_ratio double precision not null,
  ended_estate_at timestamptz, state text not null check (state in ('running', 'done', 'failed')), was_forecast boolean not null,
  unique (system_id, locator)
);
create index rebuilds_by_pool on rebuilds (pool_id, started_estate_at desc);

create trigger revision before update on nodes for each row execute function bump_revision('{revision,clock_offset_seconds}');
create trigger revision before update on node_ports for each row execute function bump_revision('{revision}');
create trigger revision before update on switches for each row execute function bump_revision('{revision}');
create trigger revision before update on switch_ports for each row execute function bump_revision('{revision}');

create trigger tell after insert or update or delete on nodes for each statement execute function tell_estate();
create trigger tell after insert or update or delete on node_ports for each statement execute function tell_estate();
create trigger tell after insert or update or delete on switch_ports for each statement execute function tell_estate();
create trigger tell after insert or update or delete on path_probes for each statement execute function tell_estate();
create trigger tell after insert or update or delete on findings for each statement execute function tell_estate();
create trigger tell after insert or update or delete on rebuilds for each statement execute function tell_estate();
`
