/** How promises that hold at any moment were kept, by the day: hours of volumes, each hour looked at once. */
export const sql = `
create table promise_days (
  class_id uuid not null references service_classes on delete cascade, promise text not null, day date not null,
  promised text not null, last_hour timestamptz not null,
  hours bigint not null check (hours > 0), kept bigint not null check (kept between 0 and hours),
  primary key (class_id, promise, day)
);
create index promise_days_by_day on promise_days (day);
`
