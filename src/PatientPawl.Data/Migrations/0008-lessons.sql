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

-- A vehicle's card is kept with what its lists are ordered and found by: ten thousand vehicles cost a page of them no more than a hundred.
-- Which of them has moved on is noted as it happens; whoever reads a list, and the server after its start, makes those anew.
drop table vehicle_card;
create table vehicle_card (
  plate text primary key,
  card_json text,
  pads_due text not null,
  words text not null
) strict, without rowid;
create index vehicle_soonest on vehicle_card(pads_due, plate) where card_json is not null;

create table vehicle_due (
  id text primary key,
  plate text not null,
  due text not null
) strict, without rowid;
create index vehicle_due_day on vehicle_due(due, plate);
create index vehicle_due_plate on vehicle_due(plate);

create table vehicle_moved (
  plate text primary key,
  times integer not null default 1
) strict, without rowid;
insert into vehicle_moved(plate) select distinct plate from job;
create trigger job_opened_on_vehicle after insert on job begin
  insert into vehicle_moved(plate) values(new.plate) on conflict(plate) do update set times = times + 1;
end;
create trigger job_moved_on_vehicle after update of version, finished, plate on job begin
  insert into vehicle_moved(plate) values(new.plate) on conflict(plate) do update set times = times + 1;
end;
-- A copy that was read in tells nothing of this workshop's vehicles; that it is one is noted after its row.
create trigger job_imported_on_vehicle after insert on imported begin
  insert into vehicle_moved(plate) select plate from job where id = new.job_id on conflict(plate) do update set times = times + 1;
end;

-- Certificates of torque wrenches: what each gave as it was found and as it was left, and the laboratory's paper as it came.
create table wrench_certificate (
  wrench_id text not null references wrench(id),
  on_day text not null,
  certificate_json text not null,
  file blob,
  primary key(wrench_id, on_day)
) strict, without rowid;
