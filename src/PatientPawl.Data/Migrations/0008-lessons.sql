-- What a finished job taught: how long its steps took, what was found. Written when it is handed over; lists read it, and open no job.
create table job_lesson (
  number integer primary key,
  job_id text not null unique references job(id),
  lesson_json text not null
) strict;

-- A past job is found by its vehicle's VIN too.
update job_search set words = words || ' ' || coalesce((
  select case when json_valid(cast(e.content as text)) then json_extract(cast(e.content as text), '$.event.vehicle.vin') end
  from job j join job_event e on e.job_id = j.id and e.seq = 1 where j.number = job_search.rowid), '');
