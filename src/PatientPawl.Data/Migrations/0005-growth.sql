-- What the lists of a workshop ask for, so that none of them reads every job: which stand open, which came last in a bay or on a plate,
-- which have wheel nuts to check again.
alter table job add column plate text not null default '';
alter table job add column retorque_km integer;
update job set plate = coalesce(json_extract(card_json, '$.vehicle.plate'), ''), retorque_km = json_extract(card_json, '$.retorqueFromKm');
create index job_plate on job(plate, number);
create index job_bay on job(bay, number);
create index job_open on job(number) where finished = 0;
create index job_due on job(number) where retorque_km is not null;
create index job_engine on job(engine_version);

-- The card of a job, made of a version of it when a list shows it; in a table of its own, so that an append writes a short row.
create table job_card (
  job_id text primary key references job(id),
  version integer not null,
  card_json text not null
) strict, without rowid;
insert into job_card(job_id, version, card_json) select id, version, card_json from job;

-- Words that a job is found by: plate, make, model, what it is used for, its number. Found by how they begin.
create virtual table job_search using fts5(words, tokenize = 'unicode61', prefix = '1 2 3');
insert into job_search(rowid, words) select number, number || ' ' || coalesce(json_extract(card_json, '$.vehicle.plate'), '') || ' '
  || coalesce(json_extract(card_json, '$.vehicle.make'), '') || ' ' || coalesce(json_extract(card_json, '$.vehicle.model'), '') || ' ' || coalesce(json_extract(card_json, '$.vehicle.use'), '') from job;
alter table job drop column card_json;
