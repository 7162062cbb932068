-- A reference that was found wrong is held until somebody lets it go, with the reason.
create table finding_release (
  id bigint generated always as identity primary key,
  finding_id bigint not null unique references reference_finding,
  reason text not null check (reason <> ''),
  released_by bigint not null references person,
  released_at timestamptz not null
);
create trigger append_only before update or delete or truncate on finding_release
  for each statement execute function refuse_change();
grant select, insert on finding_release to barys_app;

-- A password that somebody else has set is to be changed at once.
alter table person add column must_change_password boolean not null default false;
grant insert (must_change_password), update (must_change_password) on person to barys_app;

-- A session that nobody used for a while ends.
alter table session add column seen_at timestamptz;
update session set seen_at = created_at;
alter table session alter column seen_at set not null;
grant update (seen_at) on session to barys_app;

select keep_table_in_trail(kind), carry_table(kind) from unnest(array['finding_release', 'person']) as kind;
