-- Finding any part of a tag among 100,000 instruments.
create extension if not exists pg_trgm;

alter table body
  add column pressure_kind text not null default 'gauge'
    check (pressure_kind in ('gauge', 'absolute', 'differential', 'compound', 'vacuum')),
  add column technology text not null default 'smart'
    check (technology in ('analog', 'smart', 'pneumatic', 'dial gauge', 'digital gauge')),
  -- Null is as wide as the limits allow.
  add column greatest_span numeric check (greatest_span >= least_span),
  add column outputs text[] not null default '{mA-4-20}' check (cardinality(outputs) > 0),
  add column trims text[] not null default '{zero trim,sensor trim,output trim}',
  -- [{"name", "leastSpan", "greatestSpan"}], for bodies whose linkage is set for a class of spans.
  add column span_classes jsonb not null default '[]',
  -- Per cent of span as a formula in span and URL; empty where the maker's figure is not known.
  add column accuracy text not null default '',
  -- [{"step", "torqueNm"}]
  add column swap_checklist jsonb not null default '[]',
  add column revision integer not null default 1 check (revision > 0);
grant insert, update (model, unit, lower_range_limit, upper_range_limit, least_span, pressure_kind, technology,
  greatest_span, outputs, trims, span_classes, accuracy, swap_checklist, revision) on body to barys_app;

alter table instrument drop constraint instrument_kind_check;
alter table instrument
  add constraint instrument_kind_check check (kind in ('gauge', 'absolute', 'differential', 'compound', 'vacuum')),
  add column description text not null default '',
  add column site text not null default '',
  add column walk integer check (walk between 1 and 99999),
  add column loop text not null default '',
  add column criticality text not null default 'general'
    check (criticality in ('safety function', 'quality', 'environment', 'general')),
  add column measures text not null default 'pressure'
    check (measures in ('pressure', 'differential pressure', 'level', 'flow', 'vacuum')),
  add column state text not null default 'in service' check (state in ('in service', 'spare', 'out', 'retired')),
  add column owner text not null default '',
  -- Counted up by each change, so that two people who edit one instrument do not overwrite each other.
  add column revision integer not null default 1 check (revision > 0),
  add column search text not null generated always as (
    lower(tag || ' ' || service || ' ' || description || ' ' || serial || ' ' || loop)
  ) stored;
create index instrument_search on instrument using gin (search gin_trgm_ops);
create index instrument_area on instrument (area, walk, tag);
create index instrument_owner on instrument (owner);
create index instrument_service on instrument (service, tag);
drop index instrument_due;
create index instrument_due on instrument ((state = 'retired'), due_on, tag);
create index instrument_in_service on instrument (due_on, tag) where state = 'in service';
grant insert, update (tag, serial, service, description, site, area, walk, hazards, loop, criticality, measures, kind,
  body_id, interval_months, tolerance_percent_of_span, adjust_above_percent_of_limit, owner, state, revision)
  on instrument to barys_app;

alter table configuration
  drop constraint configuration_output_unit_check,
  drop constraint configuration_transfer_check,
  add column signal text not null default 'mA-4-20',
  add column transfer_function jsonb not null default '{"kind": "linear"}';
alter table configuration drop column transfer;
grant insert on configuration to barys_app;
create trigger append_only before update or delete or truncate on configuration execute function refuse_change();

-- A list as somebody likes to see it: the query part of its address.
create table saved_view (
  id bigint generated always as identity primary key,
  person_id bigint not null references person,
  place text not null check (place in ('instruments')),
  name text not null check (length(name) between 1 and 60),
  query text not null check (length(query) <= 2000),
  unique (person_id, place, name)
);
grant select, insert, update (query), delete on saved_view to barys_app;
