/**
 * Numbers within names count as numbers: port 2 stands before port 10.
 * Changes are found by what they have looked at.
 * What can be done with a drive, in one word, kept beside it: the intake sorts, counts and filters by it. As `intakeState` has it.
 */
export const sql = `
create collation natural_order (provider = icu, locale = 'en-u-kn-true');
drop index volumes_by_sorted_name;
create index volumes_by_sorted_name on volumes (name collate natural_order, id);
create index changes_reads on changes using gin ((plan -> 'reads') jsonb_path_ops);
create index changes_made on changes using gin (facts jsonb_path_ops);
alter table drives add column intake text not null generated always as (
  case when state <> 'fine' then state
       when is_boot then 'boot'
       when role = 'spare' then 'spare'
       when role <> 'unassigned' then 'in use'
       when coalesce(left_over, 'null') = 'null' then 'unassigned'
       else 'foreign' end) stored;
create index drives_intake on drives (intake, capacity_bytes, id) where missing_since is null;
create index drives_node on drives (node_id) where node_id is not null;
`
