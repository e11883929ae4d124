/** What volumes serve, pools kept for it, images, hours without snapshots, and hosts that have no agent. */
export const sql = `
alter table volumes add column application text check (length(application) between 1 and 60), add column is_image boolean not null default false;
create index volumes_by_application on volumes (application, id) where application is not null;
alter table pools add column kept_for text check (length(kept_for) between 1 and 60);
alter table service_classes add column quiet_hours jsonb;
alter table hosts alter column agent_address drop not null;
create index mappings_by_host_group on mappings (host_group_id) where host_group_id is not null;
`
