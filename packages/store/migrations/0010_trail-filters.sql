-- The trail is looked through by person, by act and by time.
create index audit_entry_person on audit_entry (person_id, id desc);
create index audit_entry_act on audit_entry (act, id desc);
create index audit_entry_at on audit_entry (at);
