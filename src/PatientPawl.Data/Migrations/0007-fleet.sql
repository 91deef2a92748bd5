-- What a workshop's lists must know of a vehicle, made of its jobs as they stood; the stamp says whether they have moved on since.
create table vehicle_card (
  plate text primary key,
  stamp text not null,
  card_json text
) strict, without rowid;

-- What comes due is reckoned from it, and no more from a column of the job.
drop index job_due;
alter table job drop column retorque_km;

-- Reminders that were ticked off, and by whom.
create table reminder_done (
  id text primary key,
  by text not null,
  at text not null
) strict, without rowid;
