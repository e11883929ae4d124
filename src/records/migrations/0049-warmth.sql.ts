/** The highest temperature that a system states, kept as a series beside what its objects hold. */
export const sql = `
create function warmest_of(sensors jsonb) returns float8 language sql immutable parallel safe as $$
  select max((each ->> 'reading')::float8) from jsonb_array_elements(sensors) as each where each ->> 'unit' = 'Cel'
$$;
alter table systems add column warmest_celsius float8 generated always as (warmest_of(sensors)) stored;
`
