-- What the lists of a workshop ask for, so that none of them reads every job: which stand open, which came last in a bay or on a plate,
-- which have wheel nuts to check again.
alter table job add column plate text not null default '';
alter table job add column retorque_km integer;
-- The version that the card was made of; it is made when it is asked for.
alter table job add column card_version integer not null default 0;
update job set plate = coalesce(json_extract(card_json, '$.vehicle.plate'), ''), retorque_km = json_extract(card_json, '$.retorqueFromKm'), card_version = version;
create index job_plate on job(plate, number);
create index job_bay on job(bay, number);
create index job_open on job(number) where finished = 0;
create index job_due on job(number) where retorque_km is not null;
create index job_engine on job(engine_version);

-- Words that a job is found by: plate, maker, model, what it is, its number. Found by how they begin.
create virtual table job_search using fts5(words, tokenize = 'unicode61', prefix = '1 2 3');
insert into job_search(rowid, words) select number, number || ' ' || coalesce(json_extract(card_json, '$.vehicle.plate'), '') || ' '
  || coalesce(json_extract(card_json, '$.vehicle.make'), '') || ' ' || coalesce(json_extract(card_json, '$.vehicle.model'), '') || ' ' || coalesce(json_extract(card_json, '$.vehicle.use'), '') from job;
