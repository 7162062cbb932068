-- What lies behind the figures of insight: calibrations by day, by reference, by what was adjusted, and due dates as they were set.
create index result_by_standard on result (standard, done_on);
create index job_due on job (instrument_id, signed_at) include (next_due) where signed_at is not null;
