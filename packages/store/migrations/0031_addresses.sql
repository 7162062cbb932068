-- How a reference is reached and spoken to, and the bench whose link does it. A link opens nothing else.
create table reference_address (
  id bigint generated always as identity primary key,
  reference_id bigint not null unique references reference_standard,
  token_id bigint not null references api_token,
  wire jsonb not null check (jsonb_typeof(wire) = 'object' and wire ? 'at' and wire ? 'speaks'),
  revision integer not null default 1 check (revision > 0)
);
create unique index reference_address_once on reference_address (token_id, (wire -> 'at'), (wire -> 'pollingAddress'))
  nulls not distinct;
grant select, insert, update (token_id, wire, revision), delete on reference_address to barys_app;
select keep_table_in_trail('reference_address');

-- What somebody asks of an instrument at a bench, and what its link answered. Lost in a crash, and asked for again.
create unlogged table bench_request (
  id bigint generated always as identity primary key,
  token_id bigint not null,
  device text not null check (length(device) between 1 and 60),
  -- What it is asked, with all that it takes.
  request jsonb not null,
  asked_by bigint not null,
  asked_at timestamptz not null,
  -- The job in which something is changed, and what is applied meanwhile, as typed; null where nothing is changed.
  job jsonb,
  -- It is told to the link once: what is changed twice is not as it was meant.
  told_at timestamptz,
  -- Null until the link has answered.
  answer jsonb
);
create index bench_request_open on bench_request (token_id) where told_at is null;
grant select, insert, update (told_at, answer), delete on bench_request to barys_app;

-- What an instrument says of itself: its serial number, empty where it says none.
delete from bench_value;
alter table bench_value add column serial text not null check (length(serial) <= 80);

-- A person works the pressure, and the link takes what stands when that is wanted.
alter table automatic_run add column by_hand boolean not null default false;
select keep_table_in_trail('automatic_run'), carry_table('automatic_run');
alter table automatic_order drop constraint automatic_order_name_check,
  add constraint automatic_order_name_check check (name in ('hold', 'go on', 'one point', 'repeat', 'vent', 'take'));

-- What was changed at the instrument itself, over which link; null where hands did it.
alter table adjustment add column over_link jsonb check (jsonb_typeof(over_link) = 'object');
select keep_table_in_trail('adjustment');
