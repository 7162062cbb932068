-- What a statement did to rows goes into the trail by one statement, straight from the rows: gathering them into arrays for
-- a function and taking those apart again was a third of it. The entries are the same.

-- Keys in the order in which jsonb keeps them, so that it has nothing to sort.
create or replace function record_expression(of_kind text) returns text
language sql stable
as $$
  select 'jsonb_strip_nulls(jsonb_build_object(' || string_agg(
    format('%L, ', attname) || case
      when atttypid = 'bytea'::regtype then format('encode(sha256(r.%I), ''hex'')', attname)
      when attname = 'password_hash' then format('encode(sha256(convert_to(r.%I, ''UTF8'')), ''hex'')', attname)
      else format('r.%I', attname)
    end, ', ' order by length(attname::text), attname::text collate "C") || '))'
  from pg_attribute
  where attrelid = of_kind::regclass and attnum > 0 and not attisdropped and attgenerated = ''
$$;

create or replace function keep_table_in_trail(of_kind text) returns void
language plpgsql
as $body$
declare
  expression text := record_expression(of_kind);
  key text := case of_kind when 'installation' then '1' else 'r.id' end;
begin
  execute format($f$
    create or replace function %1$I() returns trigger
    language plpgsql security definer set search_path = public, pg_temp set timezone = 'UTC'
    as $t$
    declare
      xact constant xid8 := pg_current_xact_id();
    begin
      if tg_op = 'INSERT' then
        with kept as (
          insert into record_entry (id, xact, kind, record_id, change, after, hash)
          select id, xact, %2$L, key, 'added', after, record_entry_hash(id, xact, %2$L, key, 'added', null, after)
          from (select nextval('entry_number') as id, %4$s as key, %3$s as after from new_rows r) n
          returning id
        ) insert into unsealed select id from kept;
      elsif tg_op = 'UPDATE' then
        with kept as (
          insert into record_entry (id, xact, kind, record_id, change, before, after, hash)
          select id, xact, %2$L, key, 'changed', before, after,
            record_entry_hash(id, xact, %2$L, key, 'changed', before, after)
          from (
            select nextval('entry_number') as id, key, before, after
            from (select %4$s as key, %3$s as after from new_rows r) n
            join (select %4$s as key, %3$s as before from old_rows r) o using (key)
            where before <> after
          ) c
          returning id
        ) insert into unsealed select id from kept;
      else
        with kept as (
          insert into record_entry (id, xact, kind, record_id, change, before, hash)
          select id, xact, %2$L, key, 'removed', before, record_entry_hash(id, xact, %2$L, key, 'removed', before, null)
          from (select nextval('entry_number') as id, %4$s as key, %3$s as before from old_rows r) o
          returning id
        ) insert into unsealed select id from kept;
      end if;
      return null;
    end
    $t$
  $f$, 'keep_' || of_kind, of_kind, expression, key);
  -- Or it could be hung on a table of one's own, with rows of one's own.
  execute format('revoke execute on function %1$I from public', 'keep_' || of_kind);
  execute format('create or replace trigger keep_added after insert on %1$I referencing new table as new_rows
    for each statement execute function %2$I()', of_kind, 'keep_' || of_kind);
  execute format('create or replace trigger keep_changed after update on %1$I
    referencing old table as old_rows new table as new_rows for each statement execute function %2$I()',
    of_kind, 'keep_' || of_kind);
  execute format('create or replace trigger keep_removed after delete on %1$I referencing old table as old_rows
    for each statement execute function %2$I()', of_kind, 'keep_' || of_kind);
end
$body$;

select keep_table_in_trail(tgrelid::regclass::text) from pg_trigger where tgname = 'keep_added';
drop function keep_entries;
revoke execute on function number_audit_entry from public;
