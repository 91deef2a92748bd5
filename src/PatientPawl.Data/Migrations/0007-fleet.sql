-- What a workshop's lists must know of a vehicle, made of its jobs as they stood; the stamp says whether they have moved on since.
create table vehicle_card (
  plate text primary key,
  stamp text not null,
  card_json text
) strict, without rowid;

-- The stamps of all vehicles are read from this alone.
create index job_stamp on job(plate, number, version);

-- Reminders that were ticked off, and by whom.
create table reminder_done (
  id text primary key,
  by text not null,
  at text not null
) strict, without rowid;
