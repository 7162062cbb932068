-- When the plant lets an instrument be isolated, and what is isolated with it.
alter table instrument
  add column can_be_isolated text not null default 'any time' check (can_be_isolated in ('any time', 'in a shutdown')),
  add column isolated_with text not null default '' check (length(isolated_with) <= 40);
grant insert (can_be_isolated, isolated_with), update (can_be_isolated, isolated_with) on instrument to barys_app;

-- Minutes at work from Monday to Sunday, of those who do jobs.
create function are_hours(minutes integer[]) returns boolean language sql immutable as $$
  select cardinality(minutes) = 7 and 0 <= all (minutes) and 1440 >= all (minutes) and array_position(minutes, null) is null
$$;
alter table person add column week_minutes integer[] not null default '{450,450,450,450,450,0,0}'
  check (are_hours(week_minutes));
grant update (week_minutes) on person to barys_app;

create table absence (
  id bigint generated always as identity primary key,
  person_id bigint not null references person,
  first_day date not null,
  last_day date not null check (last_day >= first_day),
  reason text not null default '' check (length(reason) <= 120)
);
create index absence_person on absence (person_id, last_day);
grant select, insert, delete on absence to barys_app;

-- When an area stands still.
create table shutdown (
  id bigint generated always as identity primary key,
  area text not null check (area <> '' and length(area) <= 60),
  first_day date not null,
  last_day date not null check (last_day >= first_day),
  what text not null default '' check (length(what) <= 120)
);
create index shutdown_days on shutdown (last_day);
grant select, insert, delete on shutdown to barys_app;

-- How a site plans: from the shop to an area, the permit asked for there, when work begins, and how long after its due date an
-- instrument is in grace.
alter table installation
  add column walk_minutes integer not null default 5 check (walk_minutes between 0 and 240),
  add column permit_minutes integer not null default 15 check (permit_minutes between 0 and 480),
  add column day_begins time not null default '07:00',
  add column grace_days integer not null default 0 check (grace_days between 0 and 366);
grant update (walk_minutes, permit_minutes, day_begins, grace_days) on installation to barys_app;

-- What was given to whom for which day. An instrument is planned once at a time; what was done stays where it stood.
create table planned (
  id bigint generated always as identity primary key,
  revision integer not null default 1,
  instrument_id bigint not null references instrument,
  person_id bigint not null references person,
  day date not null,
  minutes integer not null check (minutes between 1 and 1440),
  -- Put there by hand: planning anew leaves it.
  is_fixed boolean not null default false,
  planned_by bigint not null references person,
  planned_at timestamptz not null,
  done_by_job bigint unique references job
);
create unique index planned_instrument on planned (instrument_id) where done_by_job is null;
create index planned_day on planned (day);
grant select, insert, delete, update (revision, person_id, day, minutes, is_fixed, planned_by, planned_at, done_by_job)
  on planned to barys_app;

-- The references that it takes along: one for each standard that its job needs, in their order.
create table planned_reference (
  id bigint generated always as identity primary key,
  planned_id bigint not null references planned on delete cascade,
  place integer not null check (place between 1 and 9),
  reference_id bigint not null references reference_standard,
  unique (planned_id, place)
);
create index planned_reference_reference on planned_reference (reference_id);
grant select, insert, delete on planned_reference to barys_app;

-- A plan in the making, in the background. One at a time; one whose beat has stopped was cut off.
create table plan_making (
  id bigint generated always as identity primary key,
  asked_by bigint not null references person,
  asked_at timestamptz not null,
  first_day date not null,
  days integer not null check (days between 1 and 14),
  state text not null default 'runs' check (state in ('runs', 'done', 'cancelled', 'failed')),
  part double precision not null default 0 check (part between 0 and 1),
  beat_at timestamptz not null,
  ended_at timestamptz,
  placed integer,
  -- What the plan is worth, what none exceeds, and what the plan as it comes is worth.
  worth double precision,
  bound double precision,
  as_it_comes double precision,
  check ((state = 'runs') = (ended_at is null)),
  check (state <> 'done' or (placed is not null and worth is not null and bound is not null and as_it_comes is not null))
);
create unique index plan_making_one on plan_making ((true)) where state = 'runs';
grant select, insert, update (state, part, beat_at, ended_at, placed, worth, bound, as_it_comes) on plan_making to barys_app;

select keep_table_in_trail('person'), carry_table('person'), keep_table_in_trail('installation'), carry_table('installation'),
  keep_table_in_trail('instrument'), carry_table('instrument');
