create table reference_standard (
  id bigint generated always as identity primary key,
  tag text not null unique check (tag <> ''),
  description text not null,
  serial text not null,
  quantity text not null check (quantity in ('pressure', 'current')),
  unit text not null,
  range_low numeric not null,
  range_high numeric not null,
  -- Accuracy is the sum of both terms; one of them may be zero.
  accuracy_percent_of_reading numeric not null check (accuracy_percent_of_reading >= 0),
  accuracy_percent_of_range numeric not null check (accuracy_percent_of_range >= 0),
  resolution numeric not null check (resolution > 0),
  certificate text not null,
  calibrated_on date not null,
  due_on date not null,
  check (range_low < range_high),
  check (accuracy_percent_of_reading + accuracy_percent_of_range > 0),
  check (calibrated_on < due_on)
);
grant select on reference_standard to barys_app;
