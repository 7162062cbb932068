-- What Barys advised on the readings as found, as it was shown when the technician decided, and what was made of it.
create table advice (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  run_id bigint not null references run,
  -- Errors and their parts, what each act would leave, which one was to be taken.
  content jsonb not null check (jsonb_typeof(content) = 'object'),
  made_of_it text not null check (made_of_it in ('taken', 'changed', 'ignored')),
  given_to bigint not null references person,
  given_at timestamptz not null
);
create index advice_job on advice (job_id);
create trigger job_open before insert on advice for each row execute function refuse_write_to_closed_job();
create trigger append_only before update or delete or truncate on advice execute function refuse_change();
grant select, insert on advice to barys_app;
select keep_table_in_trail('advice');

alter table adjustment drop constraint adjustment_kind_check, drop constraint adjustment_described;
alter table adjustment
  add constraint adjustment_kind_check check (kind in ('zero', 'span', 'sensor trim', 'output trim', 'mid-scale',
    'near vacuum', 're-range', 'linkage', 'factory restore', 'last field restore', 'cleaning', 'part', 'other')),
  add constraint adjustment_described check (kind not in ('re-range', 'cleaning', 'part', 'other') or description <> ''),
  -- Before and after are deviations, read at a null meter that stands at nothing for 0 % or for 100 % of the output.
  add column null_at integer check (null_at in (0, 100)),
  add column null_unit text check (null_unit in ('output unit', '% of span')),
  add constraint adjustment_null check ((null_at is null) = (null_unit is null)),
  -- The setting that was advised here, and whether it was followed; null where none was.
  add column advised jsonb check (jsonb_typeof(advised) = 'object'),
  -- What spoke against it, where it was done all the same; the reason is its description.
  add column against text not null default '' check (against = '' or description <> '');
select keep_table_in_trail('adjustment'), carry_table('adjustment');
