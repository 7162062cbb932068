-- The role that the running application has. It reads and appends; what it may change is granted column by column,
-- and it can neither update nor delete a reading or an entry of the trail.
do $$
begin
  if not exists (select from pg_roles where rolname = 'barys_app') then
    create role barys_app nologin;
  end if;
end
$$;
grant usage on schema public to barys_app;

create table installation (
  only_row boolean primary key default true check (only_row),
  site_name text not null check (site_name <> ''),
  is_demo boolean not null,
  created_at timestamptz not null default now()
);
grant select on installation to barys_app;

create table person (
  id bigint generated always as identity primary key,
  name text not null unique check (name <> ''),
  role text not null check (role in ('technician', 'reviewer', 'planner', 'administrator', 'auditor')),
  is_active boolean not null default true
);
grant select on person to barys_app;

create table audit_entry (
  id bigint primary key check (id > 0),
  at timestamptz not null,
  person_id bigint not null references person,
  act text not null check (act ~ '^[a-z][a-z -]+$'),
  subject_kind text not null check (subject_kind ~ '^[a-z][a-z -]+$'),
  subject_id bigint not null,
  detail jsonb not null,
  previous_hash bytea not null,
  hash bytea not null unique
);
create index audit_entry_subject on audit_entry (subject_kind, subject_id);
grant select, insert on audit_entry to barys_app;

-- SHA-256 over all that the entry says and the hash before it. A JSON array keeps the parts apart whatever they hold.
create function audit_entry_hash(entry audit_entry) returns bytea
language sql stable
as $$
  select sha256(
    convert_to(
      jsonb_build_array(
        entry.id,
        to_char(entry.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US'),
        entry.person_id,
        entry.act,
        entry.subject_kind,
        entry.subject_id,
        entry.detail
      )::text,
      'UTF8'
    ) || entry.previous_hash
  )
$$;

-- Numbers and chains each new entry, whatever its writer put there. The lock lasts to the end of the transaction, so
-- that entries stand in the order of their commits and no number is missing; writers should append last.
create function chain_audit_entry() returns trigger
language plpgsql
as $$
declare
  last audit_entry;
begin
  perform pg_advisory_xact_lock(hashtext('audit_entry chain'));
  select * into last from audit_entry order by id desc limit 1;
  new.id := coalesce(last.id, 0) + 1;
  new.previous_hash := coalesce(last.hash, sha256(''));
  new.hash := audit_entry_hash(new);
  return new;
end
$$;
create trigger chain before insert on audit_entry for each row execute function chain_audit_entry();

-- The first entry that is missing, altered or out of place; null of a sound trail.
create function first_broken_audit_entry() returns bigint
language sql stable
as $$
  select min(place) from (
    select
      entry.id,
      row_number() over (order by entry.id) as place,
      audit_entry_hash(entry) = entry.hash
        and entry.previous_hash = coalesce(lag(entry.hash) over (order by entry.id), sha256('')) as sound
    from audit_entry entry
  ) chain
  where id <> place or not sound
$$;
