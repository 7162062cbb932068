-- A link stands at a bench and brings what its instruments say; its token reaches for nothing else.
alter table api_token drop constraint api_token_scope_check,
  add constraint api_token_scope_check check (scope in ('read', 'write', 'link'));

-- What was last heard of each instrument of a bench. Nothing here is worth keeping: it is lost in a crash and in no backup.
create unlogged table bench_value (
  token_id bigint not null,
  device text not null check (length(device) between 1 and 60),
  channel text not null check (length(channel) between 1 and 40),
  model text not null check (length(model) <= 200),
  -- Null where it gives no value now; why, in words.
  value double precision,
  unit text not null check (length(unit) <= 20),
  raw text not null check (length(raw) <= 400),
  is_stable boolean,
  state text not null check (length(state) <= 40),
  trouble text not null check (length(trouble) <= 400),
  at timestamptz not null,
  seen_at timestamptz not null,
  primary key (token_id, device, channel)
);
grant select, insert, update, delete on bench_value to barys_app;

-- A run that instruments of a bench go through by themselves. Who started it answers for its readings.
create table automatic_run (
  id bigint generated always as identity primary key,
  run_id bigint not null references run,
  token_id bigint not null references api_token,
  reference_device text not null,
  output_device text not null,
  digital_device text,
  started_by bigint not null references person,
  started_at timestamptz not null,
  ended_at timestamptz,
  ended_by bigint references person,
  -- Why, in words.
  ended_why text,
  check ((ended_at is null) = (ended_why is null))
);
create unique index automatic_run_open_run on automatic_run (run_id) where ended_at is null;
create unique index automatic_run_open_bench on automatic_run (token_id) where ended_at is null;
grant select, insert, update (ended_at, ended_by, ended_why) on automatic_run to barys_app;

-- What it was told meanwhile.
create table automatic_order (
  id bigint generated always as identity primary key,
  automatic_id bigint not null references automatic_run,
  name text not null check (name in ('hold', 'go on', 'one point', 'repeat', 'vent')),
  given_by bigint not null references person,
  given_at timestamptz not null
);
create index automatic_order_run on automatic_order (automatic_id, id);
grant select, insert on automatic_order to barys_app;

-- Where it stands, as the link says; lost like the values.
create unlogged table automatic_state (
  automatic_id bigint primary key,
  state jsonb not null,
  -- The last order that was obeyed.
  done_order bigint not null,
  at timestamptz not null
);
grant select, insert, update, delete on automatic_state to barys_app;

-- Where a reading comes from that nobody typed: link, devices, and what came over the wire.
alter table reading add column source jsonb check (jsonb_typeof(source) = 'object');

select keep_table_in_trail(kind) from unnest(array['reading', 'automatic_run', 'automatic_order']) as kind;
