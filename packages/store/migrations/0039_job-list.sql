-- Finding any part of a tag or service among half a million jobs, as each job keeps them.
create index job_search on job using gin (
  lower((instrument_copy ->> 'tag') || ' ' || (instrument_copy ->> 'service')) gin_trgm_ops
);
create index job_signed on job (signed_at desc) where signed_at is not null;
create index job_found on job (as_found_verdict, id desc) where as_found_verdict not in ('within', 'within-adjust');

-- Jobs that ended without the instrument having been brought back, which a hand-over goes on naming.
create index stage_passed_no_return on stage_passed (job_id) where stage = 'return' and is_skip;

alter table saved_view drop constraint saved_view_place_check,
  add constraint saved_view_place_check check (place in ('instruments', 'jobs'));
