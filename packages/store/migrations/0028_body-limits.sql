-- How far 0 % may be moved from zero, per cent of span, and the turndown of a body that is stamped with its largest span only.
alter table body
  add column greatest_elevation_percent numeric check (greatest_elevation_percent >= 0),
  add column greatest_suppression_percent numeric check (greatest_suppression_percent >= 0),
  add column stamped_turndown numeric check (stamped_turndown >= 1);
grant update (greatest_elevation_percent, greatest_suppression_percent, stamped_turndown) on body to barys_app;

select keep_table_in_trail('body'), carry_table('body');
