-- Photos by what they are: the same picture is kept once, and a log that names one can be shown to have the very one it was given.
create table photo (
  sha256 text primary key,
  content blob not null
) strict;
