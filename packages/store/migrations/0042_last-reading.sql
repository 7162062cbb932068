-- The reading that stands at a point is the last one there: found at once, however often it was corrected.
drop index reading_of_run;
create index reading_of_run on reading (run_id, position, id);
