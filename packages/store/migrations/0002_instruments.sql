create table body (
  id bigint generated always as identity primary key,
  model text not null unique check (model <> ''),
  unit text not null,
  lower_range_limit numeric not null,
  upper_range_limit numeric not null,
  least_span numeric not null check (least_span > 0),
  check (lower_range_limit < upper_range_limit),
  check (least_span <= upper_range_limit - lower_range_limit)
);
grant select on body to barys_app;

create table instrument (
  id bigint generated always as identity primary key,
  tag text not null unique check (tag ~ '^[A-Z0-9][A-Z0-9-]{1,31}$'),
  serial text not null,
  service text not null check (service <> ''),
  area text not null check (area <> ''),
  hazards text[] not null default '{}',
  body_id bigint not null references body,
  kind text not null check (kind in ('gauge')),
  tolerance_percent_of_span numeric not null check (tolerance_percent_of_span > 0),
  adjust_above_percent_of_limit numeric not null default 70
    check (adjust_above_percent_of_limit > 0 and adjust_above_percent_of_limit <= 100),
  test_points numeric[] not null default '{0,25,50,75,100}' check (cardinality(test_points) >= 2),
  interval_months integer not null check (interval_months > 0),
  due_on date not null
);
create index instrument_due on instrument (due_on, tag);
grant select, update (due_on) on instrument to barys_app;

-- Never edited: a change is a new version, so that an old run can always be read beside what was in force.
create table configuration (
  id bigint generated always as identity primary key,
  instrument_id bigint not null references instrument,
  version integer not null check (version > 0),
  input_unit text not null,
  lrv numeric not null,
  urv numeric not null,
  output_unit text not null check (output_unit = 'mA'),
  output_low numeric not null,
  output_high numeric not null,
  transfer text not null check (transfer in ('linear')),
  damping_s numeric not null check (damping_s >= 0),
  display_unit text not null,
  display_low numeric not null,
  display_high numeric not null,
  made_by bigint not null references person,
  made_at timestamptz not null,
  reason text not null check (reason <> ''),
  unique (instrument_id, version),
  check (lrv <> urv),
  check (output_low <> output_high)
);
grant select on configuration to barys_app;
