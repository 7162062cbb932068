-- A file brought in, kept as it came: what was imported from it can be looked at again.
create table import_file (
  id bigint generated always as identity primary key,
  kind text not null check (kind in ('instruments', 'references', 'configurations', 'results')),
  name text not null,
  bytes bytea not null check (length(bytes) <= 67108864),
  sha256 bytea not null,
  brought_by bigint not null references person,
  brought_at timestamptz not null,
  imported_at timestamptz
);
grant select, insert, update (imported_at) on import_file to barys_app;

-- How the columns of such a file were read the last time.
create table import_mapping (
  kind text not null,
  header text not null,
  mapping jsonb not null,
  primary key (kind, header)
);
grant select, insert, update (mapping) on import_mapping to barys_app;

-- Results from before Barys, or from elsewhere. They are history to look at, not records that Barys stands for.
create table past_result (
  id bigint generated always as identity primary key,
  instrument_id bigint not null references instrument,
  done_on date not null,
  kind text not null check (kind in ('as-found', 'as-left')),
  direction text not null check (direction in ('up', 'down')),
  nominal_percent numeric not null,
  applied numeric not null,
  output numeric not null,
  done_by text not null default '',
  certificate text not null default '',
  import_id bigint not null references import_file,
  unique (instrument_id, done_on, kind, direction, nominal_percent)
);
create trigger append_only before update or delete or truncate on past_result execute function refuse_change();
grant select, insert on past_result to barys_app;
