-- Attempts at the practice bench. They are no records: they stand apart from all real work, in no trail, list or export of it.
create table practice_attempt (
  id bigint generated always as identity primary key,
  -- Made by the browser, so that an attempt sent twice because the answer was lost is kept once.
  client_key uuid not null unique,
  person_id bigint not null references person,
  lesson text not null check (length(lesson) between 1 and 60),
  seed integer not null check (seed > 0),
  -- What was done, with its times: replay and score are made from it anew.
  record jsonb not null check (jsonb_typeof(record) = 'array' and pg_column_size(record) < 1000000),
  points integer not null check (points between 0 and 100),
  time_s double precision not null check (time_s >= 0),
  finished_at timestamptz not null
);
create index practice_attempt_of on practice_attempt (person_id, lesson, finished_at desc);
grant select, insert on practice_attempt to barys_app;
