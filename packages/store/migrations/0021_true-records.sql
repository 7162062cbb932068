-- A signed record stays as it was when the register changes: who people were then, what the instrument was called, where
-- it was and how it hung on its process.

-- What a person was called until then. Names in records are those of the day of the act.
create table person_former_name (
  id bigint generated always as identity primary key,
  person_id bigint not null references person,
  name text not null,
  until timestamptz not null
);
create index person_former_name_person on person_former_name (person_id, until);
create trigger append_only before update or delete or truncate on person_former_name
  for each statement execute function refuse_change();
grant select, insert on person_former_name to barys_app;

create function name_at(person_id bigint, at timestamptz) returns text
language sql stable
as $$
  select coalesce(
    (select former.name from person_former_name former
     where former.person_id = name_at.person_id and former.until > name_at.at order by former.until limit 1),
    (select person.name from person where person.id = name_at.person_id)
  )
$$;

-- Tags that an instrument had: labels and links with them still lead to it.
create table instrument_former_tag (
  id bigint generated always as identity primary key,
  instrument_id bigint not null references instrument,
  tag text not null,
  until timestamptz not null
);
create index instrument_former_tag_tag on instrument_former_tag (tag, until desc);
create trigger append_only before update or delete or truncate on instrument_former_tag
  for each statement execute function refuse_change();
grant select, insert on instrument_former_tag to barys_app;

-- The instrument as the job knew it: made when the job is opened, and again when it is signed.
alter table job add column instrument_copy jsonb;
alter table job disable trigger keep_changed, disable trigger closed;
update job set instrument_copy = jsonb_build_object('tag', tag, 'serial', serial, 'service', service,
  'description', description, 'site', instrument.site, 'area', area, 'loop', loop, 'criticality', criticality,
  'hazards', to_jsonb(hazards), 'measures', measures, 'kind', kind, 'hookUp', hook_up)
from instrument where instrument.id = instrument_id;
alter table job enable trigger keep_changed, enable trigger closed;
alter table job alter column instrument_copy set not null;
grant update (instrument_copy) on job to barys_app;

-- When the instrument is due after it, by the day of the work; null where it stays, and of jobs signed before.
alter table job add column next_due date;
grant update (next_due) on job to barys_app;

-- Where the readings were taken.
alter table connection add column place text not null default 'on site' check (place in ('on site', 'at the bench'));
alter table connection alter column place drop default;

-- In which the days of this site are cut, by its IANA name; null is that of the server.
alter table installation add column time_zone text check (time_zone <> '');
grant update (time_zone) on installation to barys_app;

-- A job that was opened by mistake is cancelled and stays readable.
alter table job
  drop constraint job_stage_check,
  add constraint job_stage_check check (stage in ('brief', 'authorise', 'isolate', 'connect', 'as-found', 'judge',
    'adjust', 'as-left', 'return', 'sign', 'review', 'closed', 'cancelled')),
  add column cancelled_by bigint references person,
  add column cancelled_at timestamptz,
  add column cancel_reason text not null default '',
  add constraint job_cancelled check ((stage = 'cancelled') = (cancelled_at is not null)
    and (cancelled_by is null) = (cancelled_at is null) and (cancelled_at is null or cancel_reason <> ''));
grant update (cancelled_by, cancelled_at, cancel_reason) on job to barys_app;
drop index job_one_open;
create unique index job_one_open on job (instrument_id) where signed_at is null and cancelled_at is null;
drop index job_open;
create index job_open on job (opened_at desc) where signed_at is null and cancelled_at is null;
create or replace function refuse_write_to_closed_job() returns trigger
language plpgsql
as $$
begin
  if exists (select from job where id = new.job_id and stage in ('closed', 'cancelled')) then
    raise exception 'job % is closed', new.job_id using errcode = 'check_violation';
  end if;
  return new;
end
$$;
create or replace function refuse_change_of_closed_job() returns trigger
language plpgsql
as $$
begin
  if old.stage in ('closed', 'cancelled') then
    raise exception 'job % is closed', old.id using errcode = 'check_violation';
  end if;
  return new;
end
$$;
create or replace function refuse_reading_of_closed_job() returns trigger
language plpgsql
as $$
begin
  if exists (select from run join job on job.id = run.job_id
    where run.id = new.run_id and job.stage in ('closed', 'cancelled')) then
    raise exception 'the job of run % is closed', new.run_id using errcode = 'check_violation';
  end if;
  return new;
end
$$;

-- Where the site has a second person review, that one has to agree to an amendment too.
alter table amendment add column needs_review boolean not null default false;
alter table amendment alter column needs_review drop default;
create table amendment_review (
  id bigint generated always as identity primary key,
  amendment_id bigint not null unique references amendment,
  is_accepted boolean not null,
  remark text not null default '',
  reviewed_by bigint not null references person,
  reviewed_at timestamptz not null,
  check (is_accepted or remark <> '')
);
create trigger append_only before update or delete or truncate on amendment_review
  for each statement execute function refuse_change();
grant select, insert on amendment_review to barys_app;

select keep_table_in_trail(kind), carry_table(kind) from unnest(array['amendment', 'amendment_review', 'connection', 'installation', 'job',
  'instrument_former_tag', 'person_former_name']) as kind;
