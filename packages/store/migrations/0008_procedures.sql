-- How a calibration is done. Never edited: a change is a new version, and a run keeps a copy of the one it was made with.
create table procedure (
  id bigint generated always as identity primary key,
  name text not null unique check (length(name) between 1 and 80)
);
create table procedure_version (
  procedure_id bigint not null references procedure,
  version integer not null check (version > 0),
  -- Points, order, cycles, settling, limits, rule, questions and cautions; its shape is procedures.ts.
  content jsonb not null,
  -- Null for those that come with Barys.
  made_by bigint references person,
  made_at timestamptz not null,
  reason text not null check (reason <> ''),
  primary key (procedure_id, version)
);
create trigger append_only before update or delete or truncate on procedure_version execute function refuse_change();
grant select, insert, update (name) on procedure to barys_app;
grant select, insert on procedure_version to barys_app;

with usual (content) as (values (
  '{"points": {"in": "percent-of-input", "values": [0, 25, 50, 75, 100]}, "direction": "up-and-down", "cycles": 1,
    "isTopRepeated": false, "offStopsPercent": 0, "settle": {"leftPercent": 0.1, "holdS": 3, "bandPercent": 0.02},
    "tolerancePercentOfSpan": null, "adjustAbovePercentOfLimit": null, "decisionRule": {"kind": "simple"},
    "leastRatio": 4, "isAsFoundOnly": false, "questions": [], "cautions": []}'::jsonb
)), shipped (name, differs) as (values
  ('Five points up and down', '{}'::jsonb),
  ('Three points up and down', '{"points": {"in": "percent-of-input", "values": [0, 50, 100]}}'),
  ('As found only', '{"isAsFoundOnly": true, "cautions": ["Nothing is adjusted under this procedure. What is outside its limits is reported."]}'),
  ('Dial gauge', '{"points": {"in": "percent-of-input", "values": [0, 25, 50, 75, 100]}, "offStopsPercent": 5,
    "settle": {"leftPercent": 0.1, "holdS": 5, "bandPercent": 0.1},
    "questions": [{"stage": "connect", "text": "Is the gauge upright, or in the position it is used in?"},
      {"stage": "as-found", "text": "Read before and after a light tap with the finger."}],
    "cautions": ["Stand to the side of the dial while it is under pressure.", "Oxygen gauges: only oil-free references and lines."]}'),
  ('Vacuum gauge', '{"points": {"in": "percent-of-input", "values": [0.1, 1, 10, 50, 100]}, "direction": "down",
    "settle": {"leftPercent": 0.1, "holdS": 60, "bandPercent": 0.5},
    "questions": [{"stage": "connect", "text": "Has the gauge been pumped well below its lowest decade before zero is set?"},
      {"stage": "connect", "text": "Which gas is in the system, and which is the gauge set for?"}],
    "cautions": ["Never set span at atmosphere: the barometer moves.", "Vent slowly; glass can implode."]}'),
  ('Square-root flow, even in flow', '{"points": {"in": "percent-of-output", "values": [0, 25, 50, 75, 100]},
    "questions": [{"stage": "brief", "text": "Where is the root taken: transmitter, receiver or computer? Exactly one of them."}]}'),
  ('Pneumatic', '{"settle": {"leftPercent": 0.1, "holdS": 10, "bandPercent": 0.1},
    "questions": [{"stage": "connect", "text": "Is the supply at its nominal pressure, clean and dry?"},
      {"stage": "connect", "text": "Are the output line and its gauge free of leaks?"}],
    "cautions": ["Approach each point from one side only: friction shows as hysteresis."]}')
), made as (
  insert into procedure (name) select name from shipped returning id, name
)
insert into procedure_version (procedure_id, version, content, made_at, reason)
  select made.id, 1, usual.content || shipped.differs, now(), 'comes with Barys' from made join shipped using (name), usual;

alter table instrument add column procedure_id bigint references procedure;
update instrument set procedure_id = (select id from procedure where name = 'Five points up and down');
alter table instrument alter column procedure_id set not null, drop column test_points;
grant insert (procedure_id), update (procedure_id) on instrument to barys_app;
