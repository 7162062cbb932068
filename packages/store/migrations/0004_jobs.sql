create table job (
  id bigint generated always as identity (start with 2101) primary key,
  instrument_id bigint not null references instrument,
  reason text not null check (reason in ('due', 'fault', 'check')),
  stage text not null default 'brief'
    check (stage in ('brief', 'connect', 'as-found', 'judge', 'adjust', 'as-left', 'sign', 'closed')),
  opened_by bigint not null references person,
  opened_at timestamptz not null,
  signed_by bigint references person,
  signed_at timestamptz,
  remark text not null default '',
  as_found_verdict text check (as_found_verdict in ('within', 'within-adjust', 'outside')),
  as_left_verdict text check (as_left_verdict in ('within', 'within-adjust', 'outside')),
  check ((stage = 'closed') = (signed_at is not null)),
  check ((signed_by is null) = (signed_at is null)),
  check (stage <> 'closed' or (as_found_verdict is not null and as_left_verdict is not null))
);
-- Two people cannot each open a visit to the same instrument.
create unique index job_one_open on job (instrument_id) where signed_at is null;
create index job_of_instrument on job (instrument_id, opened_at desc);
create index job_open on job (opened_at desc) where signed_at is null;
grant select, insert on job to barys_app;
grant update (stage, signed_by, signed_at, remark, as_found_verdict, as_left_verdict) on job to barys_app;

create function refuse_write_to_closed_job() returns trigger
language plpgsql
as $$
begin
  if exists (select from job where id = new.job_id and stage = 'closed') then
    raise exception 'job % is signed and closed', new.job_id using errcode = 'check_violation';
  end if;
  return new;
end
$$;

create function refuse_change_of_closed_job() returns trigger
language plpgsql
as $$
begin
  if old.stage = 'closed' then
    raise exception 'job % is signed and closed', old.id using errcode = 'check_violation';
  end if;
  return new;
end
$$;
create trigger closed before update on job for each row execute function refuse_change_of_closed_job();

-- What a stage left behind, each time it was passed; a stage that was passed over says why.
create table stage_passed (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  stage text not null check (stage in ('brief', 'connect', 'as-found', 'judge', 'adjust', 'as-left', 'sign')),
  note text not null default '',
  is_skip boolean not null default false,
  done_by bigint not null references person,
  done_at timestamptz not null,
  check (not is_skip or note <> '')
);
create index stage_passed_job on stage_passed (job_id);
create trigger job_open before insert on stage_passed for each row execute function refuse_write_to_closed_job();
grant select, insert on stage_passed to barys_app;

create table connection (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  pressure_reference_id bigint not null references reference_standard,
  meter_id bigint not null references reference_standard,
  ambient_c numeric not null check (ambient_c between -60 and 85),
  humidity_percent numeric not null check (humidity_percent between 0 and 100),
  barometer_hpa numeric not null check (barometer_hpa between 500 and 1100),
  checks_done text[] not null,
  made_by bigint not null references person,
  made_at timestamptz not null
);
create index connection_job on connection (job_id);
create trigger job_open before insert on connection for each row execute function refuse_write_to_closed_job();
grant select, insert on connection to barys_app;

create table run (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  kind text not null check (kind in ('as-found', 'as-left')),
  -- As-left runs are numbered: an adjustment that was not enough is followed by another pass.
  pass integer not null check (pass > 0),
  -- Configuration, tolerance, points, references and ambient conditions as they were when the run began.
  made_with jsonb not null,
  started_by bigint not null references person,
  started_at timestamptz not null,
  unique (job_id, kind, pass),
  check (kind = 'as-left' or pass = 1)
);
create trigger job_open before insert on run for each row execute function refuse_write_to_closed_job();
grant select, insert on run to barys_app;

create table reading (
  id bigint generated always as identity primary key,
  run_id bigint not null references run,
  position integer not null check (position > 0),
  -- Made by the writer, so that a reading sent twice because the answer was lost is kept once.
  client_key uuid not null unique,
  applied_text text not null check (length(applied_text) between 1 and 40),
  applied numeric not null,
  -- 'set': the reference was set to the nominal value and showed it; 'read': another value was read at the reference.
  applied_as text not null check (applied_as in ('set', 'read')),
  output_text text not null check (length(output_text) between 1 and 40),
  output numeric not null,
  read_by bigint not null references person,
  read_at timestamptz not null,
  supersedes bigint unique,
  unique (id, run_id, position),
  foreign key (supersedes, run_id, position) references reading (id, run_id, position)
);
create index reading_of_run on reading (run_id, position);
-- One first reading a point, and each reading corrected at most once: the history of a point never forks.
create unique index reading_first on reading (run_id, position) where supersedes is null;
grant select, insert on reading to barys_app;

create function refuse_reading_of_closed_job() returns trigger
language plpgsql
as $$
begin
  if exists (select from run join job on job.id = run.job_id where run.id = new.run_id and job.stage = 'closed') then
    raise exception 'the job of run % is signed and closed', new.run_id using errcode = 'check_violation';
  end if;
  return new;
end
$$;
create trigger job_open before insert on reading for each row execute function refuse_reading_of_closed_job();

-- What was measured is never changed, not even by the owner of the tables.
create function refuse_change() returns trigger
language plpgsql
as $$
begin
  raise exception '% is only ever added to', tg_table_name using errcode = 'insufficient_privilege';
end
$$;
create trigger append_only before update or delete or truncate on reading execute function refuse_change();
create trigger append_only before update or delete or truncate on audit_entry execute function refuse_change();
create trigger append_only before update or delete or truncate on run execute function refuse_change();

create table adjustment (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  -- The as-left pass that this adjustment comes before.
  pass integer not null check (pass > 0),
  kind text not null check (kind in ('zero', 'span', 'sensor trim', 'output trim', 'other')),
  description text not null default '',
  before_text text not null check (before_text <> ''),
  before_output numeric not null,
  after_text text not null check (after_text <> ''),
  after_output numeric not null,
  at_applied_text text not null check (at_applied_text <> ''),
  at_applied numeric not null,
  made_by bigint not null references person,
  made_at timestamptz not null,
  check (kind <> 'other' or description <> '')
);
create index adjustment_job on adjustment (job_id);
create trigger job_open before insert on adjustment for each row execute function refuse_write_to_closed_job();
create trigger append_only before update or delete or truncate on adjustment execute function refuse_change();
grant select, insert on adjustment to barys_app;
