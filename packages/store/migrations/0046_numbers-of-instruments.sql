-- An import takes the numbers of its instruments beforehand, so that their ranges can name them.
grant usage on sequence instrument_id_seq to barys_app;
