-- A note on an instrument may also lead back to its set-up walk.

alter table instrument_note
  drop constraint instrument_note_address_check,
  add constraint instrument_note_address_check
    check (address = '' or address ~ '^/(workshop/|instruments/[^/?]+/set-up([?]|$))');
