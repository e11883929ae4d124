/**
 * Plans are up to half a megabyte, and written anew with each edit: packed by what is quick at it, where the server has it. What has been
 * written stays as it is.
 */
export const sql = `
do $$ begin
  alter table changes alter column plan set compression lz4;
  alter table changes alter column intent set compression lz4;
exception when feature_not_supported then null;
end $$;
`
