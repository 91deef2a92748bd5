-- A second person who is signed in on the same device; they go with the session.
create table session_with (
  session_id text primary key references session(id) on delete cascade,
  technician_id text not null references technician(id)
) strict, without rowid;
