-- A reading whose uncertainty exceeds its limit cannot be judged, and neither can a run that has one and none outside.
alter table job
  drop constraint job_as_found_verdict_check,
  drop constraint job_as_left_verdict_check,
  add constraint job_as_found_verdict_check
    check (as_found_verdict in ('within', 'within-adjust', 'undecided', 'not-judged', 'outside')),
  add constraint job_as_left_verdict_check
    check (as_left_verdict in ('within', 'within-adjust', 'undecided', 'not-judged', 'outside'));
