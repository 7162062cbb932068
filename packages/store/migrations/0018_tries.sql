-- Tries at passwords are counted by what was tried (a login, a browser that was signed in before, an address, one's own
-- signature), each apart from the others.
drop table sign_in_failure;
create table password_try (
  id bigint generated always as identity primary key,
  key text not null check (length(key) between 1 and 160),
  at timestamptz not null
);
create index password_try_key on password_try (key, at);
grant select, insert, delete on password_try to barys_app;

-- Browsers that somebody has signed in with: strangers' guesses do not shut these out. Only the SHA-256 is kept.
create table known_browser (
  token_hash bytea primary key,
  person_id bigint not null references person,
  seen_at timestamptz not null
);
create index known_browser_person on known_browser (person_id);
grant select, insert, update (seen_at), delete on known_browser to barys_app;
