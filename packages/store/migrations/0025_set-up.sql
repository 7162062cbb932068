-- What else is set in an instrument. Null is what nobody registered.
alter table configuration
  add column display_damping_s numeric check (display_damping_s >= 0),
  add column application text check (application in ('pressure', 'level', 'flow')),
  add column start_view text check (start_view in ('display scale', 'pressure', 'per cent of range', 'output')),
  add column driven_by text check (driven_by in ('pressure', 'scaled variable')),
  add column switching_points jsonb not null default '[]' check (jsonb_typeof(switching_points) = 'array');

-- What was read at an instrument, against the version of its configuration in force then.
create table setup_reading (
  id bigint generated always as identity primary key,
  instrument_id bigint not null references instrument,
  -- Null where it was read outside a job.
  job_id bigint references job,
  moment text not null check (moment in ('as set', 'as it must be', 'walk')),
  version integer not null,
  -- What was read, what it was compared with, and what was found; as they were then.
  settings jsonb not null check (jsonb_typeof(settings) = 'object'),
  differences jsonb not null check (jsonb_typeof(differences) = 'array'),
  checks jsonb not null check (jsonb_typeof(checks) = 'array'),
  remark text not null,
  read_by bigint not null references person,
  read_at timestamptz not null,
  foreign key (instrument_id, version) references configuration (instrument_id, version),
  check ((moment = 'walk') = (job_id is null))
);
create index setup_reading_instrument on setup_reading (instrument_id, id desc);
create index setup_reading_job on setup_reading (job_id) where job_id is not null;
create trigger append_only before update or delete or truncate on setup_reading
  for each statement execute function refuse_change();
grant select, insert on setup_reading to barys_app;

select keep_table_in_trail(kind), carry_table(kind) from unnest(array['configuration', 'setup_reading']) as kind;
