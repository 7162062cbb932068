-- What a statement did to rows goes into the trail by one statement, straight from the rows, and is one thing that waits
-- for its seal. The entries are the same.

-- What no seal covers yet: the entries of one statement each.
alter table unsealed rename to unsealed_before;
create table unsealed (
  entries int8multirange not null check (not isempty(entries)),
  first bigint generated always as (lower(entries)) stored primary key
);
insert into unsealed (entries)
select range_agg(int8range(entry, entry, '[]')) from unsealed_before having count(*) > 0;
drop table unsealed_before;
grant select, delete on unsealed to barys_app;

-- Nobody looks for records by their transaction, only for acts.
drop index record_entry_xact;
-- The same in one rule, which is looked at once an entry.
alter table record_entry drop constraint record_entry_change_check, drop constraint record_entry_check,
  drop constraint record_entry_check1,
  add constraint record_entry_change check (case change
    when 'added' then before is null and after is not null
    when 'carried' then before is null and after is not null
    when 'changed' then before is not null and after is not null
    when 'removed' then before is not null and after is null
    else false
  end);

create or replace function number_audit_entry() returns trigger
language plpgsql
security definer
set search_path = public, pg_temp
as $$
begin
  new.id := nextval('entry_number');
  new.xact := pg_current_xact_id();
  new.previous_hash := null;
  new.hash := audit_entry_hash(new);
  insert into unsealed (entries) values (int8multirange(int8range(new.id, new.id, '[]')));
  return new;
end
$$;

-- What the trail keeps of a row, as before. Keys stand in the order in which jsonb keeps them, so that it has nothing to sort;
-- where all that may be null is null, there is nothing else to strip but what lies inside of a column.
create or replace function record_expression(of_kind text) returns text
language sql stable
as $$
  with part as (
    select attname, atttypid = 'jsonb'::regtype as is_json, attnotnull as is_needed, format('%L, ', attname) || case
      when atttypid = 'bytea'::regtype then format('encode(sha256(r.%I), ''hex'')', attname)
      when attname = 'password_hash' then format('encode(sha256(convert_to(r.%I, ''UTF8'')), ''hex'')', attname)
      else format('r.%I', attname)
    end as pair
    from pg_attribute
    where attrelid = of_kind::regclass and attnum > 0 and not attisdropped and attgenerated = ''
    order by length(attname::text), attname::text collate "C"
  )
  select 'case when ' || coalesce(string_agg(case
      when not is_needed then format('r.%I is null', attname)
      when is_json then format('jsonb_typeof(r.%I) <> ''null''', attname)
    end, ' and '), 'true')
    || ' then jsonb_build_object(' || string_agg(case
      when is_needed and is_json then format('%1$L, jsonb_strip_nulls(r.%1$I)', attname)
      when is_needed then pair
    end, ', ') || ') else jsonb_strip_nulls(jsonb_build_object(' || string_agg(pair, ', ') || ')) end'
  from part
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
        )
        insert into unsealed (entries) select range_agg(int8range(id, id, '[]')) from kept having count(*) > 0;
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
        )
        insert into unsealed (entries) select range_agg(int8range(id, id, '[]')) from kept having count(*) > 0;
      else
        with kept as (
          insert into record_entry (id, xact, kind, record_id, change, before, hash)
          select id, xact, %2$L, key, 'removed', before, record_entry_hash(id, xact, %2$L, key, 'removed', before, null)
          from (select nextval('entry_number') as id, %4$s as key, %3$s as before from old_rows r) o
          returning id
        )
        insert into unsealed (entries) select range_agg(int8range(id, id, '[]')) from kept having count(*) > 0;
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

create or replace function carry_table(of_kind text) returns void
language plpgsql
set timezone = 'UTC'
as $body$
begin
  execute format($f$
    with carried as (
      insert into record_entry (id, xact, kind, record_id, change, after, hash)
      select id, xact, %1$L, record_id, 'carried', after,
        record_entry_hash(id, xact, %1$L, record_id, 'carried', null, after)
      from (
        select nextval('entry_number') as id, pg_current_xact_id() as xact, record_id, after
        from (select %2$s as record_id, %3$s as after from %1$I r) now
        where after is distinct from (
          select last.after from record_entry last
          where last.kind = %1$L and last.record_id = now.record_id order by last.id desc limit 1
        )
      ) numbered
      returning id
    )
    insert into unsealed (entries) select range_agg(int8range(id, id, '[]')) from carried having count(*) > 0
  $f$, of_kind, case of_kind when 'installation' then '1' else 'r.id' end, record_expression(of_kind));
end
$body$;

-- The hash of a record over the same text as before: kinds are names of tables and changes one of four words, in which
-- nothing is to be escaped.
create or replace function record_entry_hash(
  id bigint, xact xid8, kind text, record_id bigint, change text, before jsonb, after jsonb
) returns bytea
language sql stable
as $$
  select sha256(convert_to(
    '[' || id || ', "' || xact || '", "' || kind || '", ' || record_id || ', "' || change || '", '
      || coalesce(before::text, 'null') || ', ' || coalesce(after::text, 'null') || ']',
    'UTF8'
  ))
$$;

revoke execute on function number_audit_entry from public;
