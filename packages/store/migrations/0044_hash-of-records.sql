-- The hash of a record in the trail, over the same text as before, put together from its parts: building an array of JSON
-- for it and reading that out again took half of the time.
create or replace function record_entry_hash(
  id bigint, xact xid8, kind text, record_id bigint, change text, before jsonb, after jsonb
) returns bytea
language sql stable
as $$
  select sha256(convert_to(
    '[' || id || ', "' || xact || '", ' || to_jsonb(kind) || ', ' || record_id || ', ' || to_jsonb(change) || ', '
      || coalesce(before::text, 'null') || ', ' || coalesce(after::text, 'null') || ']',
    'UTF8'
  ))
$$;
