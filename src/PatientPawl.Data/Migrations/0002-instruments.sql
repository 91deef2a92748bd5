create table instrument (id text primary key, instrument_json text not null) strict;
