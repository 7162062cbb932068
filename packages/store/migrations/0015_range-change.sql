-- A range is changed in the middle of a job: what was logged or connected before it keeps the unit it was in.
alter table job drop constraint job_reason_check,
  add constraint job_reason_check check (reason in ('due', 'fault', 'check', 'range change', 'new'));

alter table adjustment add column input_unit text, add column output_unit text;
alter table adjustment disable trigger append_only;
update adjustment set input_unit = made_with -> 'configuration' ->> 'inputUnit',
  output_unit = made_with -> 'configuration' ->> 'outputUnit'
from run where run.job_id = adjustment.job_id and run.kind = 'as-found';
alter table adjustment enable trigger append_only;
alter table adjustment alter column input_unit set not null, alter column output_unit set not null;

alter table connection add column input_unit text;
update connection set input_unit = made_with -> 'configuration' ->> 'inputUnit'
from run where run.job_id = connection.job_id and run.kind = 'as-found';
alter table connection alter column input_unit set not null;
