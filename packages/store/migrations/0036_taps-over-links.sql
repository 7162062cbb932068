-- Which instruments of the bench read the taps of a loop, by the column that each fills; empty where none is read.
alter table automatic_run add column taps jsonb not null default '{}' check (jsonb_typeof(taps) = 'object');
select keep_table_in_trail('automatic_run'), carry_table('automatic_run');
