/** Who tells that a change has changed no longer makes a text of all of it, its plan too, to find its id. */
export const sql = `
create or replace function tell_change() returns trigger language plpgsql as $$
declare of uuid;
begin
  if tg_table_name = 'changes' then of := new.id; else of := new.change_id; end if;
  perform pg_notify('wendrel', json_build_object('topic', 'changes', 'of', of)::text);
  return null;
end $$;
`
