-- The trail holds the records themselves, and is sealed. An act writes its entry and, through triggers, one entry for
-- each record that it adds or changes; no lock is shared among acts. A sealer joins what is committed into numbered,
-- signed seals.

-- One numbering for acts and records, so that a seal covers both. Acts that came to nothing leave gaps.
create sequence entry_number;
select setval('entry_number', coalesce((select max(id) from audit_entry), 0) + 1, false);

drop trigger chain on audit_entry;
drop function chain_audit_entry();
drop function first_broken_audit_entry();
-- Null of entries since the seals; those of before keep the chain that they have.
alter table audit_entry alter column previous_hash drop not null;
-- A stranger's try at signing in has nobody's name.
alter table audit_entry alter column person_id drop not null;
-- Act and records of one transaction bear its number.
alter table audit_entry add column xact xid8;
create index audit_entry_xact on audit_entry (xact);

create table record_entry (
  id bigint primary key,
  xact xid8 not null,
  kind text not null,
  record_id bigint not null,
  -- 'carried': as the record stood when entries like this one began to be kept.
  change text not null check (change in ('carried', 'added', 'changed', 'removed')),
  before jsonb,
  after jsonb,
  hash bytea not null,
  check ((before is not null) = (change in ('changed', 'removed'))),
  check ((after is null) = (change = 'removed'))
);
create index record_entry_record on record_entry (kind, record_id, id);
create index record_entry_xact on record_entry (xact);
grant select on record_entry to barys_app;

-- SHA-256 over all that an act's entry says; of before the seals, chained to the one before.
create or replace function audit_entry_hash(entry audit_entry) returns bytea
language sql stable
as $$
  select sha256(
    convert_to(
      (jsonb_build_array(
        entry.id,
        to_char(entry.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US'),
        entry.person_id,
        entry.act,
        entry.subject_kind,
        entry.subject_id,
        entry.detail
      ) || case when entry.previous_hash is null then jsonb_build_array(entry.xact::text) else '[]' end)::text,
      'UTF8'
    ) || coalesce(entry.previous_hash, '')
  )
$$;

create function record_entry_hash(
  id bigint, xact xid8, kind text, record_id bigint, change text, before jsonb, after jsonb
) returns bytea
language sql stable
as $$
  select sha256(convert_to(jsonb_build_array(id, xact::text, kind, record_id, change, before, after)::text, 'UTF8'))
$$;

-- Entries that no seal covers yet.
create table unsealed (entry bigint primary key);
grant select, delete on unsealed to barys_app;

create function number_audit_entry() returns trigger
language plpgsql
security definer
set search_path = public, pg_temp
as $$
begin
  new.id := nextval('entry_number');
  new.xact := pg_current_xact_id();
  new.previous_hash := null;
  new.hash := audit_entry_hash(new);
  insert into unsealed values (new.id);
  return new;
end
$$;
create trigger number before insert on audit_entry for each row execute function number_audit_entry();
create trigger append_only before update or delete or truncate on record_entry execute function refuse_change();

-- Entries of records, from rows of any table with the columns of `rows`: number, record, before, after.
create function keep_entries(of_kind text, what text, ids bigint[], befores jsonb[], afters jsonb[]) returns void
language sql
as $$
  with numbered as (
    select nextval('entry_number') as id, pg_current_xact_id() as xact, record_id, before, after
    from unnest(ids, befores, afters) as rows (record_id, before, after)
  ),
  kept as (
    insert into record_entry (id, xact, kind, record_id, change, before, after, hash)
    select id, xact, of_kind, record_id, what, before, after,
      record_entry_hash(id, xact, of_kind, record_id, what, before, after)
    from numbered order by id
    returning id
  )
  insert into unsealed select id from kept
$$;
revoke execute on function keep_entries from public;

-- These two and the hashes above stand in verify.ts once more, which trusts no code that lies in the database.
-- What the trail keeps of a row: its columns that are not null; of files and password hashes only their SHA-256.
create function record_expression(of_kind text) returns text
language sql stable
as $$
  select 'jsonb_strip_nulls(jsonb_build_object(' || string_agg(
    format('%L, ', attname) || case
      when atttypid = 'bytea'::regtype then format('encode(sha256(r.%I), ''hex'')', attname)
      when attname = 'password_hash' then format('encode(sha256(convert_to(r.%I, ''UTF8'')), ''hex'')', attname)
      else format('r.%I', attname)
    end, ', ' order by attnum) || '))'
  from pg_attribute
  where attrelid = of_kind::regclass and attnum > 0 and not attisdropped and attgenerated = ''
$$;

-- Makes, or makes anew after a change of columns, what keeps a table's rows in the trail.
-- A migration that changes rows of such a table does it with the trigger `keep_changed` off and carries the table.
create function keep_table_in_trail(of_kind text) returns void
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
    begin
      if tg_op = 'INSERT' then
        perform keep_entries(%2$L, 'added', array_agg(%4$s), array_agg(null::jsonb), array_agg(%3$s)) from new_rows r
          having count(*) > 0;
      elsif tg_op = 'UPDATE' then
        perform keep_entries(%2$L, 'changed', array_agg(key), array_agg(before), array_agg(after))
        from (select %4$s as key, %3$s as after from new_rows r) n
        join (select %4$s as key, %3$s as before from old_rows r) o using (key)
        where before <> after
        having count(*) > 0;
      else
        perform keep_entries(%2$L, 'removed', array_agg(%4$s), array_agg(%3$s), array_agg(null::jsonb)) from old_rows r
          having count(*) > 0;
      end if;
      return null;
    end
    $t$
  $f$, 'keep_' || of_kind, of_kind, expression, key);
  execute format('create or replace trigger keep_added after insert on %1$I referencing new table as new_rows
    for each statement execute function %2$I()', of_kind, 'keep_' || of_kind);
  execute format('create or replace trigger keep_changed after update on %1$I
    referencing old table as old_rows new table as new_rows for each statement execute function %2$I()',
    of_kind, 'keep_' || of_kind);
  execute format('create or replace trigger keep_removed after delete on %1$I referencing old table as old_rows
    for each statement execute function %2$I()', of_kind, 'keep_' || of_kind);
end
$body$;

-- Carries the rows of a table into the trail that are not as it knows them: what a migration made of them. The seal after
-- a migration is one of its own kind; carried entries under any other are a forgery.
create function carry_table(of_kind text) returns void
language plpgsql
set timezone = 'UTC'
as $body$
begin
  execute format($f$
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
  $f$, of_kind, case of_kind when 'installation' then '1' else 'r.id' end, record_expression(of_kind));
  insert into unsealed select id from record_entry where xact = pg_current_xact_id() and kind = of_kind
    and change = 'carried' on conflict do nothing;
end
$body$;
revoke execute on function carry_table from public;

alter table procedure_version add column id bigint generated always as identity unique;
select keep_table_in_trail(kind), carry_table(kind) from unnest(array['adjustment', 'amendment', 'attachment', 'body',
  'configuration', 'connection', 'finding_decision', 'import_file', 'installation', 'instrument', 'job', 'past_result',
  'person', 'point_mark', 'procedure', 'procedure_version', 'reading', 'reference_certificate', 'reference_finding',
  'reference_module', 'reference_standard', 'run', 'run_thrown_away', 'stage_passed', 'valve_move']) as kind;
-- All that there is goes into the first seal.
insert into unsealed select id from audit_entry;

create table seal (
  number bigint primary key check (number > 0),
  at timestamptz not null,
  is_migration boolean not null,
  entries int8multirange not null check (not isempty(entries)),
  -- SHA-256 over the hashes of the entries, in their order.
  content_hash bytea not null,
  -- The seal before; SHA-256 of nothing for the first.
  previous_hash bytea not null,
  hash bytea not null unique,
  -- Ed25519 over the hash, and whose: the first half of the SHA-256 of the public key.
  signature bytea not null,
  key text not null
);
create index seal_entries on seal using gist (entries);
create trigger append_only before update or delete or truncate on seal execute function refuse_change();
grant select, insert on seal to barys_app;
