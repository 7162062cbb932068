-- People sign in. Null: cannot, until an administrator sets a login and a password.
alter table person
  add column login text unique check (login ~ '^[a-z0-9][a-z0-9._-]{1,39}$'),
  add column password_hash text;
grant insert, update (name, role, is_active, login, password_hash) on person to barys_app;
grant insert on installation to barys_app;

-- The browser keeps a random token, the database only its SHA-256: a stolen backup opens no session.
create table session (
  token_hash bytea primary key,
  person_id bigint not null references person,
  created_at timestamptz not null,
  expires_at timestamptz not null check (expires_at > created_at)
);
create index session_person on session (person_id);
grant select, insert, delete on session to barys_app;

-- Tries that failed, by the name that was typed; they fade after a while.
create table sign_in_failure (
  login text not null,
  at timestamptz not null
);
create index sign_in_failure_login on sign_in_failure (login, at);
grant select, insert, delete on sign_in_failure to barys_app;

create table api_token (
  id bigint generated always as identity primary key,
  person_id bigint not null references person,
  name text not null check (length(name) between 1 and 60),
  scope text not null check (scope in ('read', 'write')),
  token_hash bytea not null unique,
  created_at timestamptz not null,
  expires_at timestamptz not null check (expires_at > created_at),
  revoked_at timestamptz
);
create index api_token_person on api_token (person_id);
grant select, insert, update (revoked_at) on api_token to barys_app;
