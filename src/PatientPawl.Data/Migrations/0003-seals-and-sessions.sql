-- A seal for each event, by this workshop's key: it shows an edit by anyone who has the database and not the key.
-- as_found is 1 where the event was older than its seal.
create table event_seal (
  job_id text not null,
  seq integer not null,
  seal blob not null,
  as_found integer not null,
  primary key (job_id, seq)
) strict, without rowid;

-- A sign-in that stands: a cookie without its row here signs nobody in.
create table session (
  id text primary key,
  technician_id text not null references technician(id),
  started_at text not null
) strict;

-- Who has left keeps their name in every record, and signs in no more.
alter table technician add column left_at text;
