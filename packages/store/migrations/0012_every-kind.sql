-- Instruments of every kind: limits by zone and by reading, scales read by eye, two standards in one run, more than one
-- reading at a point.

alter table instrument
  drop constraint instrument_tolerance_percent_of_span_check,
  -- Of the middle half of the scale, where it is another one there.
  add column tolerance_middle_percent_of_span numeric check (tolerance_middle_percent_of_span > 0),
  add column tolerance_percent_of_reading numeric not null default 0 check (tolerance_percent_of_reading >= 0);
alter table instrument add constraint instrument_tolerance check (tolerance_percent_of_span >= 0
  and tolerance_percent_of_span + tolerance_percent_of_reading > 0
  and (tolerance_middle_percent_of_span is null or tolerance_percent_of_span > 0));
grant insert (tolerance_middle_percent_of_span, tolerance_percent_of_reading),
  update (tolerance_middle_percent_of_span, tolerance_percent_of_reading) on instrument to barys_app;

-- Between two marks of a scale that is read by eye, in the output unit.
alter table configuration add column scale_division numeric check (scale_division > 0);

alter table connection
  -- Null where the output is read by eye.
  alter column meter_module_id drop not null,
  -- A second standard for the points that the first one does not reach, or measures less well.
  add column second_module_id bigint references reference_module,
  -- {"startText", "endText", "minutes", "percentOfSpanPerMinute", "limit"}
  add column leak jsonb,
  add column height_m numeric not null default 0 check (height_m between -100 and 100),
  -- Of the liquid in the line; zero for gas.
  add column liquid_density numeric not null default 0 check (liquid_density >= 0),
  -- What the instrument sees more than the standard, in the input unit.
  add column head numeric not null default 0,
  add column reads_digital boolean not null default false,
  -- What is read beside the output at each point; empty for nothing.
  add column second_indication text not null default '';

alter table reading
  -- Other readings at the point by their name, as typed: before a tap, digital value, second indication.
  add column more jsonb not null default '{}' check (jsonb_typeof(more) = 'object'),
  -- When it was taken, by the clock of whoever took it; the server's own time is read_at.
  add column taken_at timestamptz;

-- What is kept at a point without being a reading that counts.
create table point_mark (
  id bigint generated always as identity primary key,
  run_id bigint not null references run,
  position integer not null check (position > 0),
  client_key uuid not null unique,
  kind text not null check (kind in ('overshot', 'no reading', 'note')),
  applied_text text not null default '' check (length(applied_text) <= 40),
  output_text text not null default '' check (length(output_text) <= 40),
  remark text not null default '' check (length(remark) <= 500),
  marked_by bigint not null references person,
  marked_at timestamptz not null,
  check (kind = 'overshot' or remark <> '')
);
create index point_mark_run on point_mark (run_id, position, id);
create trigger job_open before insert on point_mark for each row execute function refuse_reading_of_closed_job();
create trigger append_only before update or delete or truncate on point_mark execute function refuse_change();
grant select, insert on point_mark to barys_app;
