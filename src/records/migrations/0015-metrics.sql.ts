/**
 * What is measured. Samples arrive in one of two plain tables, which are emptied in turn; from there they go into packs, one a series and
 * hour or day, parted by month so that what is old is dropped at once. Forecasts are derived, and made anew from the packs at any time.
 */
export const sql = `
create table metric_series (
  id int generated always as identity primary key,
  system_id uuid not null references systems on delete cascade,
  kind text not null, object_id uuid not null, metric text not null,
  last_at timestamptz, last_value float8,
  past_at timestamptz, past_value float8,
  recent_at timestamptz, recent_p95 float8, recent_mean float8,
  unique (object_id, metric)
);
create index metric_series_by_system on metric_series (system_id, metric);
create index metric_series_by_slowest on metric_series (metric, recent_p95 desc) where recent_p95 is not null;
create table metric_incoming_0 (series_id int not null, at timestamptz not null, value float8 not null);
create table metric_incoming_1 (series_id int not null, at timestamptz not null, value float8 not null);
create table metric_state (
  only_one boolean primary key default true check (only_one),
  generation int not null default 0 check (generation in (0, 1))
);
insert into metric_state default values;
create table metric_packs (
  series_id int not null, starts_at timestamptz not null, last_at timestamptz not null,
  samples int not null check (samples > 0),
  least float8 not null, most float8 not null, total float8 not null, last_value float8 not null,
  pack bytea not null, sketch bytea,
  primary key (series_id, starts_at)
) partition by range (starts_at);
create table metric_sources (
  system_id uuid primary key references systems on delete cascade,
  sampled_at timestamptz, counted_at timestamptz, gap_since timestamptz, no_history text, refused jsonb not null default '{}'
);
create table growth_forecasts (
  pool_id uuid primary key references pools on delete cascade,
  made_at timestamptz not null, forecast jsonb not null,
  reaches_at timestamptz
);
create index growth_forecasts_by_date on growth_forecasts (reaches_at);
create trigger tell_new after insert on growth_forecasts referencing new table as changed for each statement execute function tell_rows();
create trigger tell_changed after update on growth_forecasts referencing old table as was new table as changed for each statement execute function tell_rows();
`
