-- Practice lives beside real work and is in none of its lists: whose it is stands with the job, and its number is below nought.
alter table job add column learner text;
create index job_practice on job(learner, number) where learner is not null;

-- Real events are only added, for ever. Practice is its learner's, and goes when they say so.
drop trigger job_event_no_delete;
create trigger job_event_no_delete before delete on job_event when (select learner from job where id = old.job_id) is null
begin select raise(abort, 'job events are only added'); end;

-- What somebody has shown alone, without harm; it stays when the run is deleted.
create table shown (
  technician_id text not null references technician(id),
  competence text not null,
  scenario_id text not null,
  on_day text not null,
  primary key(technician_id, competence, scenario_id)
) strict, without rowid;

-- Scenarios that the workshop made, or read in.
create table scenario (id text primary key, scenario_json text not null) strict;

-- Cards, by Leitner's boxes: in which box a card of somebody lies, and the day it comes back.
create table card_box (
  technician_id text not null references technician(id),
  card_id text not null,
  box integer not null,
  due text not null,
  right_times integer not null,
  wrong_times integer not null,
  answered_at text not null,
  primary key(technician_id, card_id)
) strict, without rowid;
