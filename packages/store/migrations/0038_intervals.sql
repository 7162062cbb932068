-- Who may change the interval of a safety function, whatever their role is.
alter table person add column decides_safety boolean not null default false;
grant update (decides_safety) on person to barys_app;

-- What the site asks of intervals, by criticality. The figures are common practice; a site sets its own.
create table interval_policy (
  id bigint generated always as identity primary key,
  criticality text not null unique check (criticality in ('safety function', 'quality', 'environment', 'general')),
  -- Part that is to be found inside at the end of an interval.
  target numeric not null check (target between 0.5 and 0.9999),
  longest_months integer not null check (longest_months between 1 and 120)
);
grant select, update (target, longest_months) on interval_policy to barys_app;
insert into interval_policy (criticality, target, longest_months)
values ('safety function', 0.98, 12), ('quality', 0.95, 24), ('environment', 0.95, 24), ('general', 0.95, 60);

-- A calculation of all advice, in the background. One at a time; one whose beat has stopped was cut off.
create table interval_calculation (
  id bigint generated always as identity primary key,
  asked_by bigint not null references person,
  asked_at timestamptz not null,
  state text not null default 'runs' check (state in ('runs', 'done', 'cancelled', 'failed')),
  done integer not null default 0 check (done >= 0),
  total integer not null default 0 check (total >= done),
  beat_at timestamptz not null,
  ended_at timestamptz,
  -- References and people whose calibrations differ from the others'.
  differences jsonb not null default '[]' check (jsonb_typeof(differences) = 'array'),
  check ((state = 'runs') = (ended_at is null))
);
create unique index interval_calculation_one on interval_calculation ((true)) where state = 'runs';
grant select, insert, update (state, done, total, beat_at, ended_at, differences) on interval_calculation to barys_app;

-- How the calibrations of each family came out, by the months since the one before, as the last calculation counted them.
create table family_count (
  model text not null,
  measures text not null,
  area text not null,
  months integer not null check (months > 0),
  calibrations integer not null check (calibrations > 0),
  out_of_tolerance integer not null check (out_of_tolerance between 0 and calibrations),
  primary key (model, measures, area, months)
);
grant select, insert, delete on family_count to barys_app;

-- What the last calculation advised of each instrument; worked out from results, so lost without harm.
create table interval_advice (
  instrument_id bigint primary key references instrument,
  calculation_id bigint not null references interval_calculation,
  computed_on date not null,
  kind text not null check (kind in ('shorter', 'longer', 'keep', 'look', 'none')),
  months_now integer not null,
  months integer not null,
  -- Last day with its bounds inside the limits; null where nothing says it.
  inside_until date,
  outside_part double precision,
  advice jsonb not null check (jsonb_typeof(advice) = 'object'),
  anomalies jsonb not null default '[]' check (jsonb_typeof(anomalies) = 'array'),
  -- What a planner works through first.
  rank smallint not null generated always as (
    case kind when 'shorter' then 1 when 'look' then 2 when 'longer' then 3 when 'keep' then 4 else 5 end
  ) stored
);
create index interval_advice_rank on interval_advice (rank, outside_part desc nulls last, instrument_id);
create index interval_advice_kind on interval_advice (kind, outside_part desc nulls last, instrument_id);
create index interval_advice_worth on interval_advice (instrument_id) where anomalies <> '[]';
grant select, insert, update, delete on interval_advice to barys_app;

-- An interval that somebody changed, with the reason and what was advised then.
create table interval_change (
  id bigint generated always as identity primary key,
  instrument_id bigint not null references instrument,
  before_months integer not null check (before_months > 0),
  after_months integer not null check (after_months > 0),
  reason text not null check (reason <> '' and length(reason) <= 500),
  advised jsonb,
  changed_by bigint not null references person,
  changed_at timestamptz not null,
  check (before_months <> after_months)
);
create index interval_change_instrument on interval_change (instrument_id);
create trigger append_only before update or delete or truncate on interval_change
  for each statement execute function refuse_change();
grant select, insert on interval_change to barys_app;

select keep_table_in_trail('person'), carry_table('person'), keep_table_in_trail('interval_policy'),
  carry_table('interval_policy'), keep_table_in_trail('interval_change');
