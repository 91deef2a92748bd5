create table technician (
  id text primary key,
  name text not null unique,
  is_lead integer not null,
  pin_hash text not null,
  failures integer not null default 0,
  locked_until text
) strict;

create table setting (key text primary key, value text not null) strict;

create table vehicle (
  plate text primary key,
  vehicle_json text not null,
  sheet_code text not null
) strict;

create table spec_sheet (code text primary key, sheet_json text not null) strict;

create table wrench (id text primary key, wrench_json text not null) strict;

-- The projection the board reads; rebuilt from job_event when engine_version differs.
create table job (
  id text primary key,
  number integer not null unique,
  bay integer not null,
  version integer not null,
  finished integer not null,
  engine_version text not null,
  card_json text not null
) strict;

-- Append only. content is stored as it was hashed and is never written again.
create table job_event (
  job_id text not null references job(id),
  seq integer not null,
  event_id text not null unique,
  request_hash text not null,
  content blob not null,
  hash text not null,
  primary key (job_id, seq)
) strict, without rowid;

create trigger job_event_no_update before update on job_event begin select raise(abort, 'job events are only added'); end;
create trigger job_event_no_delete before delete on job_event begin select raise(abort, 'job events are only added'); end;
