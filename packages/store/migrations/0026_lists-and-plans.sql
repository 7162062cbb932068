-- Two kinds of job at a boiler drum. A hot check has no run, and so no verdict.
alter table job drop constraint job_reason_check, drop constraint job_verdicts,
  add constraint job_reason_check
    check (reason in ('due', 'fault', 'check', 'range change', 'new', 'cold set-up', 'hot check')),
  add constraint job_verdicts check (stage not in ('review', 'closed')
    or (reason = 'hot check') = (as_found_verdict is null) and (as_found_verdict is null) = (as_left_verdict is null));

-- Lines of a job's lists, each to be ticked; a tick may be taken back, the last one counts.
create table job_line (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  list text not null check (list in ('what must follow', 'exchange of the body', 'cold set-up', 'hot check')),
  position integer not null check (position > 0),
  text text not null check (text <> ''),
  made_by bigint not null references person,
  made_at timestamptz not null,
  unique (job_id, list, position)
);
create table job_line_tick (
  id bigint generated always as identity primary key,
  line_id bigint not null references job_line,
  is_done boolean not null,
  done_by bigint not null references person,
  done_at timestamptz not null
);
create index job_line_tick_line on job_line_tick (line_id, id desc);

-- The range that a job was opened for, as the workshop handed it over.
create table range_plan (
  id bigint generated always as identity primary key,
  job_id bigint not null unique references job,
  configuration jsonb not null check (jsonb_typeof(configuration) = 'object'),
  label text not null,
  made_by bigint not null references person,
  made_at timestamptz not null
);

-- What the workshop found out about an instrument, and the address where it is worked out.
create table instrument_note (
  id bigint generated always as identity primary key,
  instrument_id bigint not null references instrument,
  text text not null check (text <> ''),
  address text not null check (address = '' or address like '/workshop/%'),
  made_by bigint not null references person,
  made_at timestamptz not null
);
create index instrument_note_instrument on instrument_note (instrument_id, id desc);

-- An offset that was entered hot, with the pressure and the level at which it was right; the last one is in force.
create table bias (
  id bigint generated always as identity primary key,
  instrument_id bigint not null references instrument,
  job_id bigint references job,
  -- Per cent of the range of the level, added to what the transmitter shows.
  bias_percent numeric not null,
  -- Absolute, Pa.
  pressure_pa numeric not null check (pressure_pa > 0),
  -- Per cent of the range of the level.
  glass_percent numeric not null,
  shown_percent numeric not null,
  explained_percent numeric not null,
  unexplained_percent numeric not null,
  reason text not null check (reason <> ''),
  address text not null check (address = '' or address like '/workshop/%'),
  made_by bigint not null references person,
  made_at timestamptz not null
);
create index bias_instrument on bias (instrument_id, id desc);

create trigger append_only before update or delete or truncate on job_line
  for each statement execute function refuse_change();
create trigger append_only before update or delete or truncate on job_line_tick
  for each statement execute function refuse_change();
create trigger append_only before update or delete or truncate on range_plan
  for each statement execute function refuse_change();
create trigger append_only before update or delete or truncate on instrument_note
  for each statement execute function refuse_change();
create trigger append_only before update or delete or truncate on bias
  for each statement execute function refuse_change();
grant select, insert on job_line, job_line_tick, range_plan, instrument_note, bias to barys_app;

select keep_table_in_trail(kind)
from unnest(array['job_line', 'job_line_tick', 'range_plan', 'instrument_note', 'bias']) as kind;
