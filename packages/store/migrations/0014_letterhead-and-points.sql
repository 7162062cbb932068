-- Whose laboratory calibrates and for whom, as certificates say it; a signed job keeps its own copy.
alter table installation add column letterhead jsonb not null default '{}';
grant update (letterhead) on installation to barys_app;
alter table job add column letterhead jsonb;
grant update (letterhead) on job to barys_app;

-- A note or photograph may be of one point of a run.
alter table attachment add column run_id bigint references run, add column position int,
  add constraint attachment_point check ((run_id is null) = (position is null));
