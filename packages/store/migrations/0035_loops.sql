-- The loop that an instrument sends its signal through, as the workshop has it. Never edited: a change is a new version.
create table loop (
  id bigint generated always as identity primary key,
  instrument_id bigint not null references instrument,
  version integer not null check (version > 0),
  -- The texts of the tool's fields, and the chain that they came to.
  fields jsonb not null check (jsonb_typeof(fields) = 'object'),
  content jsonb not null check (jsonb_typeof(content) = 'object'),
  reason text not null check (reason <> ''),
  made_by bigint not null references person,
  made_at timestamptz not null,
  unique (instrument_id, version)
);
create trigger append_only before update or delete or truncate on loop
  for each statement execute function refuse_change();
grant select, insert on loop to barys_app;

alter table job drop constraint job_reason_check,
  add constraint job_reason_check check (reason in
    ('due', 'fault', 'check', 'range change', 'new', 'cold set-up', 'hot check', 'loop check'));

-- The receiver that the instrument was trimmed to, where it was; that wants a reason, which is its description.
alter table adjustment add column to_receiver text not null default ''
  check (to_receiver = '' or description <> '');

select keep_table_in_trail('loop'), keep_table_in_trail('adjustment'), carry_table('adjustment');
