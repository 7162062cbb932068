-- How fast each person or address writes, shared by all web servers of an installation. Nothing here is worth keeping:
-- it is lost in a crash, takes no place in a backup, and asks no disk to be waited for.
create unlogged table request_rate (
  key text primary key,
  points integer not null default 0,
  -- Milliseconds since 1970; what has expired counts anew.
  expire bigint
);
grant select, insert, update, delete on request_rate to barys_app;
