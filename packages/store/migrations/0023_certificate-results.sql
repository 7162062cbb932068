-- What a certificate says of a range, point by point, in the unit of the range.
create table certificate_result (
  id bigint generated always as identity primary key,
  certificate_id bigint not null references reference_certificate,
  module_id bigint not null references reference_module,
  -- What the standard read.
  at numeric not null,
  -- True value minus reading.
  correction numeric not null,
  -- Expanded, k = 2.
  uncertainty numeric not null check (uncertainty > 0),
  unique (certificate_id, module_id, at)
);
create index certificate_result_module on certificate_result (module_id);
create trigger append_only before update or delete or truncate on certificate_result
  for each statement execute function refuse_change();
grant select, insert on certificate_result to barys_app;

select keep_table_in_trail('certificate_result');
