-- What a level is measured in, as the workshop has it, so that its range can be worked out again. Never edited: a change is
-- a new version.
create table vessel (
  id bigint generated always as identity primary key,
  instrument_id bigint not null references instrument,
  version integer not null check (version > 0),
  tool text not null check (tool in ('level', 'drum')),
  -- The texts of the tool's fields.
  fields jsonb not null check (jsonb_typeof(fields) = 'object'),
  -- The range that they came to then, Pa.
  lrv_pa numeric not null,
  urv_pa numeric not null check (urv_pa <> lrv_pa),
  reason text not null check (reason <> ''),
  made_by bigint not null references person,
  made_at timestamptz not null,
  unique (instrument_id, version)
);
create trigger append_only before update or delete or truncate on vessel
  for each statement execute function refuse_change();
grant select, insert on vessel to barys_app;

-- Densities of the plant's liquids by temperature.
create table liquid (
  id bigint generated always as identity primary key,
  name text not null check (name <> ''),
  -- Where the figures come from.
  source text not null,
  -- Rising in temperature: degrees Celsius and kg/m3.
  points jsonb not null check (jsonb_typeof(points) = 'array' and jsonb_array_length(points) > 0),
  revision integer not null default 1
);
create unique index liquid_name on liquid (lower(name));
grant select, insert, update (name, source, points, revision) on liquid to barys_app;

select keep_table_in_trail(kind) from unnest(array['vessel', 'liquid']) as kind;
