/** Sites, systems and what they have. Every object has a revision that grows when what plans rest on changes. */
export const sql = `
create function bump_revision() returns trigger language plpgsql as $$
declare
  volatile_columns text[] := tg_argv[0]::text[];
begin
  if (to_jsonb(new) - volatile_columns) is distinct from (to_jsonb(old) - volatile_columns) then
    new.revision := old.revision + 1;
  end if;
  return new;
end $$;

create function tell_estate() returns trigger language plpgsql as $$
begin
  perform pg_notify('wendrel', json_build_object('topic', 'estate', 'of', tg_table_name)::text);
  return null;
end $$;

create table sites (
  id uuid primary key, name text not null unique check (length(name) between 1 and 255), revision int not null default 1
);

create table probes (
  id uuid primary key, at timestamptz not null default now(), found jsonb not null, address text not null, uuid text not null,
  accepted_fingerprint text, user_name text not null, sealed_password bytea not null, made_by text not null
);
create index probes_by_age on probes (at);

create table systems (
  id uuid primary key, site_id uuid references sites, name text not null unique check (length(name) between 1 and 255),
  address text not null unique, maker text not null, model text not null, serial text not null, uuid text not null unique,
  firmware text, reach text not null check (reach in ('answering', 'not answering')), reach_why text, seen_at timestamptz,
  accepted_fingerprint text, user_name text not null, sealed_password bytea not null, enrol_key text not null unique,
  sensors jsonb not null default '[]', clock_wall_at timestamptz, clock_system_at timestamptz, clock_rate double precision not null default 1,
  revision int not null default 1
);

create table controllers (
  id uuid primary key, system_id uuid not null references systems on delete cascade, locator text not null, name text not null,
  model text, firmware text, state text not null check (state in ('fine', 'failed')), revision int not null default 1,
  unique (system_id, locator)
);

create table enclosures (
  id uuid primary key, system_id uuid not null references systems on delete cascade, locator text not null, name text not null,
  bay_count int not null check (bay_count >= 0), bays_per_row int not null check (bays_per_row >= 0), revision int not null default 1,
  unique (system_id, locator)
);

create table pools (
  id uuid primary key, system_id uuid not null references systems on delete cascade, locator text not null, name text not null,
  scheme jsonb not null, drive_kind jsonb not null, group_sizes jsonb not null, spare_count int not null,
  state text not null check (state in ('starting', 'fine', 'degraded', 'failed')),
  raw_bytes numeric(25) not null check (raw_bytes >= 0), usable_bytes numeric(25) not null check (usable_bytes >= 0),
  written_bytes numeric(25) not null, provisioned_bytes numeric(25) not null, metadata_bytes numeric(25) not null,
  snapshot_reserve_bytes numeric(25) not null, redundancy_bytes numeric(25) not null, stranded_bytes numeric(25) not null,
  spare_bytes numeric(25) not null, revision int not null default 1, unique (system_id, locator)
);
create index pools_by_system on pools (system_id);

create table drives (
  id uuid primary key, system_id uuid not null references systems on delete cascade, locator text not null,
  enclosure_id uuid references enclosures on delete set null, bay int not null, name text not null,
  media text not null check (media in ('HDD', 'SSD')), protocol text not null check (protocol in ('NVMe', 'SAS', 'SATA')),
  capacity_bytes numeric(25) not null check (capacity_bytes >= 0), model text not null, serial text not null, wwn text, firmware text,
  state text not null check (state in ('fine', 'failing', 'failed')), role text not null check (role in ('unassigned', 'data', 'spare')),
  pool_id uuid references pools on delete set null, group_index int, rotation_speed_rpm int, power_on_hours int,
  wear_ratio double precision, revision int not null default 1, unique (system_id, locator)
);
create index drives_by_system on drives (system_id, enclosure_id, bay);
create index drives_by_pool on drives (pool_id);

create table ports (
  id uuid primary key, system_id uuid not null references systems on delete cascade, locator text not null, name text not null,
  protocol text not null, speed_bits_per_second double precision not null, is_up boolean not null, address text, target_name text,
  revision int not null default 1, unique (system_id, locator)
);

create table volumes (
  id uuid primary key, system_id uuid not null references systems on delete cascade, locator text not null,
  pool_id uuid not null references pools on delete cascade, name text not null, naa text not null,
  size_bytes numeric(25) not null check (size_bytes >= 0), is_thin boolean not null, written_bytes numeric(25) not null,
  state text not null default 'in use' check (state in ('in use', 'holding')), holding_until timestamptz,
  revision int not null default 1, unique (system_id, locator), check ((state = 'holding') = (holding_until is not null))
);
create index volumes_by_name on volumes (name text_pattern_ops, id);
create index volumes_by_sorted_name on volumes (name, id);
create extension if not exists pg_trgm;
create index volumes_by_name_parts on volumes using gin (name gin_trgm_ops);
create index volumes_by_naa_parts on volumes using gin (naa gin_trgm_ops);
create index volumes_by_size on volumes (size_bytes, id);
create index volumes_by_written on volumes (written_bytes, id);
create index volumes_by_pool on volumes (pool_id);
create index volumes_by_naa on volumes (naa);
create index volumes_in_holding on volumes (holding_until) where state = 'holding';

create table host_groups (id uuid primary key, name text not null unique check (length(name) between 1 and 255), revision int not null default 1);

create table hosts (
  id uuid primary key, host_group_id uuid not null references host_groups, name text not null unique, agent_address text not null unique,
  operating_system text, initiators jsonb not null default '[]', enrol_key text not null unique, revision int not null default 1
);
create index hosts_by_group on hosts (host_group_id);

create table mappings (
  id uuid primary key, system_id uuid not null references systems on delete cascade, locator text not null,
  volume_id uuid not null references volumes on delete cascade, host_group_id uuid references host_groups on delete set null,
  group_name text not null, lun int not null, revision int not null default 1, unique (system_id, locator)
);
create index mappings_by_volume on mappings (volume_id);

create trigger revision before update on sites for each row execute function bump_revision('{revision}');
create trigger revision before update on systems for each row execute function
  bump_revision('{revision,seen_at,reach,reach_why,sensors,clock_wall_at,clock_system_at,clock_rate}');
create trigger revision before update on controllers for each row execute function bump_revision('{revision}');
create trigger revision before update on enclosures for each row execute function bump_revision('{revision}');
create trigger revision before update on pools for each row execute function bump_revision('{revision,written_bytes}');
create trigger revision before update on drives for each row execute function bump_revision('{revision,power_on_hours,wear_ratio}');
create trigger revision before update on ports for each row execute function bump_revision('{revision}');
create trigger revision before update on volumes for each row execute function bump_revision('{revision,written_bytes}');
create trigger revision before update on host_groups for each row execute function bump_revision('{revision}');
create trigger revision before update on hosts for each row execute function bump_revision('{revision}');
create trigger revision before update on mappings for each row execute function bump_revision('{revision}');

create trigger tell after insert or update or delete on systems for each statement execute function tell_estate();
create trigger tell after insert or update or delete on drives for each statement execute function tell_estate();
create trigger tell after insert or update or delete on pools for each statement execute function tell_estate();
create trigger tell after insert or update or delete on volumes for each statement execute function tell_estate();
create trigger tell after insert or update or delete on mappings for each statement execute function tell_estate();
create trigger tell after insert or update or delete on hosts for each statement execute function tell_estate();
`
