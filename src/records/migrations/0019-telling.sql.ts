/** Who is told of what, what stands for each rule, and every message that has left or is to leave; volumes that matter to their pools. */
export const sql = `
create table routes (
  id uuid primary key, name text not null unique, way text not null, address text not null, sender text, recipients jsonb not null,
  user_name text, secret_id uuid references kept_secrets on delete set null, made_by_step text not null unique, revision int not null default 1
);
create table rules (
  id uuid primary key, name text not null unique, subject text not null, gravity text not null, begins_at float8, ends_at float8,
  minutes int not null, quiet_from float8, quiet_to float8, quiet_days text, time_zone text not null, is_urgent_always boolean not null,
  round_at float8, route_ids jsonb not null, made_by_step text not null unique, revision int not null default 1
);
create table told_matters (
  rule_id uuid not null references rules on delete cascade, key text not null, matter jsonb not null, since timestamptz not null,
  told_at timestamptz, gone_since timestamptz, returns int not null default 0, primary key (rule_id, key)
);
create table told_messages (
  id uuid primary key, rule_id uuid references rules on delete set null, route_id uuid references routes on delete cascade,
  message jsonb not null, made_at timestamptz not null default now(), next_at timestamptz, tries int not null default 0,
  sent_at timestamptz, sent text, answer text, failed_why text
);
alter table growth_forecasts add column volumes_found jsonb not null default '[]';
create index told_messages_waiting on told_messages (next_at) where next_at is not null;
create index told_messages_latest on told_messages (made_at desc);
create index told_messages_by_route on told_messages (route_id, made_at desc);
do $$ declare told text; begin
  foreach told in array array['routes', 'rules', 'told_messages'] loop
    execute format('create trigger tell_new after insert on %I referencing new table as changed for each statement execute function tell_rows()', told);
    execute format('create trigger tell_changed after update on %I referencing old table as was new table as changed for each statement execute function tell_rows()', told);
    execute format('create trigger tell_gone after delete on %I referencing old table as changed for each statement execute function tell_rows()', told);
  end loop;
end $$;
`
