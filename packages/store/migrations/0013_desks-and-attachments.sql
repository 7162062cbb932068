-- Who is at a job: one browser at a time, until another one takes it over.
create table desk (
  job_id bigint primary key references job,
  -- Made by the browser and kept there.
  desk uuid not null,
  person_id bigint not null references person,
  taken_at timestamptz not null,
  seen_at timestamptz not null
);
grant select, insert, update on desk to barys_app;

-- Notes and photographs at a stage.
create table attachment (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  stage text not null,
  remark text not null default '' check (length(remark) <= 2000),
  file_name text not null default '',
  media_type text not null default ''
    check (media_type in ('', 'image/jpeg', 'image/png', 'image/webp', 'application/pdf')),
  file bytea check (length(file) <= 10485760),
  added_by bigint not null references person,
  added_at timestamptz not null,
  check (remark <> '' or file is not null),
  check ((file is null) = (media_type = ''))
);
create index attachment_job on attachment (job_id, id);
create trigger job_open before insert on attachment for each row execute function refuse_write_to_closed_job();
create trigger append_only before update or delete or truncate on attachment execute function refuse_change();
grant select, insert on attachment to barys_app;
