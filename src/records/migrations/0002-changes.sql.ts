/** Changes, their journal, evidence and forecasts. History is only ever added to. */
export const sql = `
create table changes (
  id uuid primary key, number int generated always as identity unique, kind text not null,
  state text not null check (state in ('draft', 'checked', 'running', 'proven', 'stopped', 'failed', 'undone')),
  title text not null default '', intent jsonb not null, plan jsonb not null, differences jsonb not null default '[]',
  made_by text not null, made_at timestamptz not null default now(), revised_at timestamptz not null default now(),
  carried_out_at timestamptz, carried_out_estate_at timestamptz, ended_at timestamptz, ended_estate_at timestamptz,
  is_stop_wanted boolean not null default false, is_undo_wanted boolean not null default false,
  facts jsonb not null default '{}', refusal jsonb, stands text, reverses uuid references changes
);
create index changes_latest on changes (number desc);
create index changes_by_state on changes (state, number desc);

create function guard_change() returns trigger language plpgsql as $$
begin
  if new.state is distinct from old.state and not (
    (old.state = 'draft' and new.state in ('checked', 'running')) or
    (old.state = 'checked' and new.state in ('draft', 'running')) or
    (old.state = 'running' and new.state in ('draft', 'proven', 'stopped', 'failed', 'undone')) or
    (old.state = 'stopped' and new.state in ('running', 'undone')) or
    (old.state in ('failed', 'proven') and new.state = 'undone')
  ) then
    raise exception 'a change cannot go from % to %', old.state, new.state using errcode = 'check_violation';
  end if;
  return new;
end $$;
create trigger guard before update on changes for each row execute function guard_change();

create table change_journal (
  id bigint generated always as identity primary key, change_id uuid not null references changes, step_index int not null,
  event text not null check (event in ('begun', 'progress', 'done', 'failed', 'undone')), at timestamptz not null default clock_timestamp(),
  estate_at timestamptz not null, done_ratio double precision check (done_ratio between 0 and 1), words text not null default '',
  facts jsonb not null default '{}'
);
create index change_journal_by_change on change_journal (change_id, id);

create table evidence (
  id bigint generated always as identity primary key, change_id uuid not null references changes, claim text not null,
  holds boolean not null, measured jsonb not null, at timestamptz not null default clock_timestamp()
);
create index evidence_by_change on evidence (change_id, id);

create function refuse_rewriting() returns trigger language plpgsql as $$
begin
  raise exception 'history is only ever added to' using errcode = 'check_violation';
end $$;
create trigger append_only before update or delete on change_journal for each row execute function refuse_rewriting();
create trigger append_only before update or delete on evidence for each row execute function refuse_rewriting();

create table claims (claim text primary key, change_id uuid not null references changes);
create index claims_by_change on claims (change_id);

create table forecast_outcomes (
  change_id uuid primary key references changes, kind text not null, base_seconds double precision not null, p10_seconds double precision not null,
  p50_seconds double precision not null, p90_seconds double precision not null, actual_seconds double precision not null,
  ended_at timestamptz not null default now()
);
create index forecast_outcomes_by_kind on forecast_outcomes (kind, ended_at desc);

create function tell_change() returns trigger language plpgsql as $$
begin
  perform pg_notify('wendrel', json_build_object('topic', 'changes', 'of', coalesce(to_jsonb(new) ->> 'change_id', to_jsonb(new) ->> 'id'))::text);
  return null;
end $$;
create trigger tell after insert or update on changes for each row execute function tell_change();
create trigger tell after insert on change_journal for each row execute function tell_change();
create trigger tell after insert on evidence for each row execute function tell_change();
`
