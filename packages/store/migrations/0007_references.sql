-- A reference is what is carried: one case, one certificate. What it measures with are its modules, of which a plain
-- meter has one.
alter table reference_standard
  add column state text not null default 'in use' check (state in ('in use', 'away', 'out', 'retired')),
  add column location text not null default '',
  add column revision integer not null default 1 check (revision > 0);

create table reference_module (
  id bigint generated always as identity primary key,
  reference_id bigint not null references reference_standard,
  name text not null,
  quantity text not null check (quantity in ('pressure', 'current', 'voltage')),
  pressure_kind text not null default 'gauge'
    check (pressure_kind in ('gauge', 'absolute', 'differential', 'compound', 'vacuum')),
  unit text not null,
  range_low numeric not null,
  range_high numeric not null,
  resolution numeric not null check (resolution > 0),
  -- The specification is the sum of its terms.
  percent_of_reading numeric not null default 0 check (percent_of_reading >= 0),
  percent_of_range numeric not null default 0 check (percent_of_range >= 0),
  floor numeric not null default 0 check (floor >= 0),
  drift_percent_of_reading_per_year numeric not null default 0 check (drift_percent_of_reading_per_year >= 0),
  percent_of_reading_per_k numeric not null default 0 check (percent_of_reading_per_k >= 0),
  is_active boolean not null default true,
  unique (reference_id, name),
  check (range_low < range_high),
  check (percent_of_reading + percent_of_range + floor > 0)
);
insert into reference_module (reference_id, name, quantity, unit, range_low, range_high, resolution,
    percent_of_reading, percent_of_range)
  select id, '', quantity, unit, range_low, range_high, resolution, accuracy_percent_of_reading,
    accuracy_percent_of_range from reference_standard;
grant select, insert, update (name, quantity, pressure_kind, unit, range_low, range_high, resolution,
  percent_of_reading, percent_of_range, floor, drift_percent_of_reading_per_year, percent_of_reading_per_k, is_active)
  on reference_module to barys_app;

create table reference_certificate (
  id bigint generated always as identity primary key,
  reference_id bigint not null references reference_standard,
  number text not null check (number <> ''),
  laboratory text not null default '',
  calibrated_on date not null,
  due_on date not null,
  -- Expanded, k = 2; null where the certificate does not say.
  uncertainty_percent_of_range numeric check (uncertainty_percent_of_range > 0),
  file_name text not null default '',
  file bytea,
  entered_by bigint references person,
  entered_at timestamptz not null default now(),
  check (calibrated_on < due_on),
  check ((file is null) = (file_name = '')),
  check (length(file) <= 10485760)
);
create index reference_certificate_reference on reference_certificate (reference_id, calibrated_on desc, id desc);
insert into reference_certificate (reference_id, number, calibrated_on, due_on)
  select id, coalesce(nullif(certificate, ''), 'not entered'), calibrated_on, due_on from reference_standard;
create trigger append_only before update or delete or truncate on reference_certificate
  execute function refuse_change();
grant select, insert on reference_certificate to barys_app;

alter table connection
  add column pressure_module_id bigint references reference_module,
  add column meter_module_id bigint references reference_module,
  -- Why a reference that does not fit was used all the same; empty where both fit.
  add column reference_reason text not null default '';
update connection set
  pressure_module_id = (select id from reference_module where reference_id = pressure_reference_id),
  meter_module_id = (select id from reference_module where reference_id = meter_id);
alter table connection
  alter column pressure_module_id set not null,
  alter column meter_module_id set not null,
  drop column pressure_reference_id,
  drop column meter_id;

alter table reference_standard
  drop column quantity, drop column unit, drop column range_low, drop column range_high, drop column resolution,
  drop column accuracy_percent_of_reading, drop column accuracy_percent_of_range, drop column certificate,
  drop column calibrated_on, drop column due_on;
grant insert, update (description, serial, state, location, revision) on reference_standard to barys_app;

-- A reference found to read wrongly: the error at each point, reading minus true value, in the module's unit.
create table reference_finding (
  id bigint generated always as identity primary key,
  module_id bigint not null references reference_module,
  found_on date not null,
  -- The day of the last calibration that can be trusted: runs since then are in doubt.
  good_until date not null check (good_until <= found_on),
  -- [{"at", "error"}], rising
  errors jsonb not null,
  note text not null,
  entered_by bigint not null references person,
  entered_at timestamptz not null
);
create trigger append_only before update or delete or truncate on reference_finding execute function refuse_change();
grant select, insert on reference_finding to barys_app;

-- What was decided for a run that used it. The newest line counts; the earlier ones stay.
create table finding_decision (
  id bigint generated always as identity primary key,
  finding_id bigint not null references reference_finding,
  run_id bigint not null references run,
  decision text not null check (decision in ('no effect', 'recall', 'note')),
  remark text not null default '',
  decided_by bigint not null references person,
  decided_at timestamptz not null,
  check (decision <> 'note' or remark <> '')
);
create index finding_decision_run on finding_decision (finding_id, run_id, id desc);
create trigger append_only before update or delete or truncate on finding_decision execute function refuse_change();
grant select, insert on finding_decision to barys_app;

-- Which runs used a module.
create index connection_pressure_module on connection (pressure_module_id);
create index connection_meter_module on connection (meter_module_id);
