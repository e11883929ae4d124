/** Who may come in and for how long, what everybody did, and drafts that two people edit. */
export const sql = `
alter table sessions add column ends_at timestamptz not null default now() + interval '7 days';

drop index sign_in_attempts_recent;
truncate sign_in_attempts;
alter table sign_in_attempts add column purpose text not null default 'sign-in' check (purpose in ('sign-in', 'first-code'));
alter table sign_in_attempts add column device text;
create index sign_in_attempts_by_age on sign_in_attempts (at);
create index sign_in_attempts_by_name on sign_in_attempts (name, at desc);
create index sign_in_attempts_by_address on sign_in_attempts (address, at desc);
create index sign_in_attempts_by_device on sign_in_attempts (device, at desc) where device is not null;

-- 128 bits out of 244 that nobody can foresee, in place of 32 out of a pseudo-random function.
update settings set value = to_jsonb(upper(regexp_replace(
    substr(encode(sha256((gen_random_uuid()::text || gen_random_uuid()::text)::bytea), 'hex'), 1, 32), '(.{4})(?!$)', '\\1-', 'g')))
  where key = 'first-sign-in';

create function tell_access() returns trigger language plpgsql as $$
begin
  perform pg_notify('wendrel', json_build_object('topic', 'access', 'of', old.id)::text);
  return null;
end $$;
create trigger tell after delete on sessions for each row execute function tell_access();
create trigger tell after delete on api_tokens for each row execute function tell_access();

create table audit (
  id bigint primary key, at timestamptz not null, who text not null, address text, action text not null, subject text not null,
  detail text not null, previous_hash text not null, hash text not null unique
);
create index audit_by_subject on audit (subject, id desc);
create trigger append_only before update or delete on audit for each row execute function refuse_rewriting();
create trigger no_truncate before truncate on audit for each statement execute function refuse_rewriting();

-- What an administrator has seen is named by its digest when it is carried out; an edit names the one that it rests on.
alter table changes add column plan_digest text not null default '';
update changes set plan_digest = md5(kind || intent::text || plan::text);
alter table changes alter column plan_digest drop default;
alter table changes add column edit int not null default 1;
alter table changes add column edited_by text;
update changes set edited_by = made_by;
alter table changes alter column edited_by set not null;

alter table changes drop constraint changes_state_check;
alter table changes add constraint changes_state_check
  check (state in ('draft', 'checked', 'running', 'proven', 'unproven', 'stopped', 'failed', 'undone'));
create or replace function guard_change() returns trigger language plpgsql as $$
begin
  if new.state is distinct from old.state and not (
    (old.state = 'draft' and new.state in ('checked', 'running')) or
    (old.state = 'checked' and new.state in ('draft', 'running')) or
    (old.state = 'running' and new.state in ('draft', 'proven', 'unproven', 'stopped', 'failed', 'undone')) or
    (old.state in ('stopped', 'unproven') and new.state in ('running', 'undone')) or
    (old.state in ('failed', 'proven') and new.state = 'undone')
  ) then
    raise exception 'a change cannot go from % to %', old.state, new.state using errcode = 'check_violation';
  end if;
  return new;
end $$;
`
