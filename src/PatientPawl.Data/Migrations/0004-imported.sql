-- A job that was read in from a file: a copy, by whom and when. It takes nothing more.
create table imported (
  job_id text primary key references job(id),
  by_name text not null,
  at text not null
) strict;
