-- Which reference a result from before Barys was read with, where the file says it.
alter table past_result add column standard text not null default '' check (length(standard) <= 60);
select keep_table_in_trail('past_result'), carry_table('past_result');

-- What each calibration came to, kept when its job is signed, so that history, intervals and insight judge nothing again. Worked out
-- from the records, which stay what counts: a job sent back or amended has its results made anew. The store fills it for what there is.
create table result (
  id bigint generated always as identity primary key,
  instrument_id bigint not null references instrument,
  -- Null of results from before Barys.
  job_id bigint references job,
  run_id bigint unique references run,
  -- Day of the last reading.
  done_on date not null,
  kind text not null check (kind in ('as-found', 'as-left')),
  -- Whether the instrument was left so: the as-left run, or the as-found one where nothing was adjusted.
  is_left boolean not null,
  -- Of the instrument by itself, also in a check of its loop; null where no point was read.
  verdict text check (verdict in ('within', 'within-adjust', 'undecided', 'not-judged', 'outside')),
  is_amended boolean not null default false,
  -- Range, output and transfer function in words: results with the same words can be compared.
  range_key text not null,
  range_version integer not null,
  -- Readings in their order: nominal input in per cent of span, error and limit in per cent of output span.
  at_percent double precision[] not null,
  is_down boolean[] not null,
  error_percent double precision[] not null,
  limit_percent double precision[] not null,
  adjust_above_percent double precision not null,
  -- The largest error as a part of its limit, signed; null where nothing was read or the limit is zero.
  worst_of_limit double precision,
  zero_percent double precision,
  span_percent double precision,
  hysteresis_percent double precision,
  standard text not null,
  meter text not null,
  person_id bigint references person,
  done_by text not null,
  -- Certificate or record that a result from before Barys names.
  record text not null,
  -- Of an as-found result: days since the instrument was left, and what it drifted by in them where the range is the same.
  since_days integer check (since_days >= 0),
  drift_zero_percent double precision,
  drift_span_percent double precision,
  check (cardinality(at_percent) = cardinality(error_percent)),
  check (cardinality(at_percent) = cardinality(limit_percent)),
  check (cardinality(at_percent) = cardinality(is_down)),
  check ((job_id is null) = (run_id is null))
);
create index result_of_instrument on result (instrument_id, done_on, id);
create index result_of_job on result (job_id);
create index result_by_day on result (done_on) include (kind, verdict);
create unique index result_from_before on result (instrument_id, done_on, kind) where job_id is null;
grant select, insert, update (since_days, drift_zero_percent, drift_span_percent), delete on result to barys_app;
