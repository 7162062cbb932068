-- A run names the connection that it was made with: a job that was connected anew has runs of each.
alter table run add column connection_id bigint references connection;
alter table run disable trigger append_only;
update run set connection_id = (
  select max(connection.id) from connection where connection.job_id = run.job_id and made_at <= started_at
);
alter table run enable trigger append_only;
create index run_connection on run (connection_id);
grant insert (connection_id) on run to barys_app;

-- What a stage or a connection left behind is only ever added to.
create trigger append_only before update or delete or truncate on stage_passed execute function refuse_change();
create trigger append_only before update or delete or truncate on connection execute function refuse_change();
