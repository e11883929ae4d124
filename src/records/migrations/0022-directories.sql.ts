/** Directories, the people and groups that they keep, and what those may do with shares over SMB. */
export const sql = `
create table directories (
  id uuid primary key, name text not null unique, address text not null, fingerprint text not null, base_dn text not null,
  read_as text not null, secret_id uuid references kept_secrets on delete set null, state text not null default 'not read yet',
  state_why text, read_at timestamptz, person_count int not null default 0, group_count int not null default 0,
  made_by_step text not null unique, revision int not null default 1
);
create table principals (
  id uuid primary key, directory_id uuid not null references directories on delete cascade, durable_id text not null, sort text not null,
  account text not null, name text not null, dn text not null, number float8, primary_gid float8, member_of jsonb not null,
  is_disabled boolean not null, gone_since timestamptz, revision int not null default 1, unique (directory_id, durable_id)
);
create index principals_by_durable_id on principals (durable_id);
create index principals_by_name on principals (name text_pattern_ops, id);
create index principals_by_name_parts on principals using gin (name gin_trgm_ops);
create index principals_by_account_parts on principals using gin (account gin_trgm_ops);
create index principals_by_member_of on principals using gin (member_of jsonb_path_ops);
create index principals_groups on principals (directory_id, name) where sort = 'group';
alter table file_services add column joined_to text;
alter table file_services add column joined_as text;
alter table shares add column grants jsonb not null default '[]';
create index shares_by_grants on shares using gin (grants jsonb_path_ops);
do $$ declare told text; begin
  foreach told in array array['directories', 'principals'] loop
    execute format('create trigger tell_new after insert on %I referencing new table as changed for each statement execute function tell_rows()', told);
    execute format('create trigger tell_changed after update on %I referencing old table as was new table as changed for each statement execute function tell_rows()', told);
    execute format('create trigger tell_gone after delete on %I referencing old table as changed for each statement execute function tell_rows()', told);
  end loop;
end $$;
`
