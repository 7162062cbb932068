-- The job as it is really done: authorise, isolate, return to service, and a second person's review.

alter table instrument add column hook_up text not null default 'block-and-bleed' check (hook_up in
  ('block-and-bleed', '2-valve', '3-valve', '5-valve', 'wet-leg', 'remote-seals', 'vacuum', 'tank-nozzle'));
update instrument set hook_up = case kind when 'differential' then '3-valve' when 'vacuum' then 'vacuum'
  else 'block-and-bleed' end;
grant insert (hook_up), update (hook_up) on instrument to barys_app;

alter table installation add column review text not null default 'another person'
  check (review in ('another person', 'anybody', 'none'));
grant update (review) on installation to barys_app;

alter table job
  drop constraint job_stage_check,
  drop constraint job_check,
  drop constraint job_check1,
  drop constraint job_check2,
  drop constraint job_as_found_verdict_check,
  drop constraint job_as_left_verdict_check,
  add column reviewed_by bigint references person,
  add column reviewed_at timestamptz,
  add column review_remark text not null default '';
alter table job
  add constraint job_stage_check check (stage in ('brief', 'authorise', 'isolate', 'connect', 'as-found', 'judge',
    'adjust', 'as-left', 'return', 'sign', 'review', 'closed')),
  add constraint job_signed check ((stage in ('review', 'closed')) = (signed_at is not null)),
  add constraint job_signer check ((signed_by is null) = (signed_at is null)),
  add constraint job_reviewed check ((reviewed_by is null) = (reviewed_at is null)
    and (reviewed_at is null or stage = 'closed')),
  add constraint job_verdicts check (stage not in ('review', 'closed')
    or (as_found_verdict is not null and as_left_verdict is not null)),
  add constraint job_as_found_verdict_check
    check (as_found_verdict in ('within', 'within-adjust', 'undecided', 'outside')),
  add constraint job_as_left_verdict_check
    check (as_left_verdict in ('within', 'within-adjust', 'undecided', 'outside'));
grant update (reviewed_by, reviewed_at, review_remark) on job to barys_app;
create index job_to_review on job (signed_at) where stage = 'review';

alter table stage_passed
  drop constraint stage_passed_stage_check,
  -- [{"question", "answer"}]: what was asked before the stage could be passed.
  add column answers jsonb not null default '[]';
alter table stage_passed add constraint stage_passed_stage_check check (stage in ('brief', 'authorise', 'isolate',
  'connect', 'as-found', 'judge', 'adjust', 'as-left', 'return', 'sign', 'review'));

-- Valves as they were moved, in their order; what was wrong with a move stays with it.
create table valve_move (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  stage text not null check (stage in ('isolate', 'return')),
  valve text not null,
  moved_to text not null check (moved_to in ('open', 'closed')),
  faults text[] not null default '{}',
  moved_by bigint not null references person,
  moved_at timestamptz not null
);
create index valve_move_job on valve_move (job_id, id);
create trigger job_open before insert on valve_move for each row execute function refuse_write_to_closed_job();
create trigger append_only before update or delete or truncate on valve_move execute function refuse_change();
grant select, insert on valve_move to barys_app;

-- A signed record is never changed: what was wrong in it stands here beside it.
create table amendment (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  -- The reading that was wrong, or null where the amendment is to what `what` names.
  reading_id bigint references reading,
  what text not null check (what <> ''),
  before_text text not null,
  after_text text not null check (after_text <> ''),
  reason text not null check (reason <> ''),
  amended_by bigint not null references person,
  amended_at timestamptz not null,
  check (before_text <> after_text)
);
create index amendment_job on amendment (job_id, id);
create trigger append_only before update or delete or truncate on amendment execute function refuse_change();
grant select, insert on amendment to barys_app;

create function refuse_amendment_of_open_job() returns trigger
language plpgsql
as $$
begin
  if not exists (select from job where id = new.job_id and stage = 'closed') then
    raise exception 'job % is not closed: correct it instead', new.job_id using errcode = 'check_violation';
  end if;
  return new;
end
$$;
create trigger job_closed before insert on amendment for each row execute function refuse_amendment_of_open_job();

-- A run that does not count, and why; it stays readable.
alter table run drop constraint run_check;
create table run_thrown_away (
  id bigint generated always as identity primary key,
  run_id bigint not null unique references run,
  reason text not null check (reason <> ''),
  thrown_by bigint not null references person,
  thrown_at timestamptz not null
);
create trigger append_only before update or delete or truncate on run_thrown_away execute function refuse_change();
grant select, insert on run_thrown_away to barys_app;

alter table adjustment drop constraint adjustment_kind_check, drop constraint adjustment_check;
alter table adjustment
  add constraint adjustment_kind_check check (kind in ('zero', 'span', 'sensor trim', 'output trim', 'mid-scale',
    'near vacuum', 'linkage', 'cleaning', 'part', 'other')),
  add constraint adjustment_described check (kind not in ('cleaning', 'part', 'other') or description <> '');
