-- A second indication has a scale and a tolerance of its own.
alter table connection add column second_scale jsonb;
grant insert (second_scale) on connection to barys_app;
