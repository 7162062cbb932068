-- What somebody found to be behind the readings of a run, as it was weighed then; taken back by another row.
create table cause (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  run_id bigint not null references run,
  suspicion text not null check (suspicion <> ''),
  -- Its name, its fitted parameter, how sure it was, the test that decides, and what was read to decide it.
  content jsonb not null check (jsonb_typeof(content) = 'object'),
  remark text not null default '' check (length(remark) <= 1000),
  is_taken_back boolean not null default false,
  chosen_by bigint not null references person,
  chosen_at timestamptz not null
);
create index cause_job on cause (job_id);
create trigger job_open before insert on cause for each row execute function refuse_write_to_closed_job();
create trigger append_only before update or delete or truncate on cause execute function refuse_change();
grant select, insert on cause to barys_app;
select keep_table_in_trail('cause');
