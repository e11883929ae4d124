/**
 * A notice is told only where rows have changed: a statement that found nothing to do told every open page to read itself anew. When a
 * system was last read, and by which reading, changes every few seconds and is no news; pages ask for it by themselves.
 */
export const sql = `
create function tell_rows() returns trigger language plpgsql as $$
begin
  if exists (select from changed) then
    perform pg_notify('wendrel', json_build_object('topic', 'estate', 'of', tg_table_name)::text);
  end if;
  return null;
end $$;
create function tell_systems() returns trigger language plpgsql as $$
begin
  if exists (
    select from changed join was using (id)
    where to_jsonb(changed) - array['seen_at', 'read_number'] is distinct from to_jsonb(was) - array['seen_at', 'read_number']
  ) then
    perform pg_notify('wendrel', json_build_object('topic', 'estate', 'of', tg_table_name)::text);
  end if;
  return null;
end $$;
do $$
declare told text;
begin
  foreach told in array array['systems', 'drives', 'pools', 'volumes', 'mappings', 'hosts', 'nodes', 'node_ports', 'switch_ports',
      'path_probes', 'findings', 'rebuilds'] loop
    execute format('drop trigger tell on %I', told);
    execute format('create trigger tell_new after insert on %I referencing new table as changed for each statement execute function tell_rows()', told);
    execute format('create trigger tell_changed after update on %I referencing old table as was new table as changed for each statement execute function %s()',
      told, case when told = 'systems' then 'tell_systems' else 'tell_rows' end);
    execute format('create trigger tell_gone after delete on %I referencing old table as changed for each statement execute function tell_rows()', told);
  end loop;
end $$;
`
