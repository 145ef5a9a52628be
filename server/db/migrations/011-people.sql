-- The people of a workshop. One without a password has an invitation and has not joined yet.
create table person (
  workshop_id uuid not null references workshop,
  person_id   uuid not null default gen_random_uuid() unique,
  name        text not null check (length(name) between 1 and 100),
  role        text not null check (role in ('owner', 'installer', 'apprentice')),
  password    text,
  created_at  timestamptz not null default now(),
  ended_at    timestamptz,
  primary key (workshop_id, person_id)
);
create unique index person_name on person (workshop_id, lower(name)) where ended_at is null;

-- A browser in which a person is signed in. The token itself is only in its cookie.
create table session (
  session_id  uuid primary key default gen_random_uuid(),
  token_hash  bytea not null unique,
  workshop_id uuid not null,
  person_id   uuid not null,
  device      text not null,
  created_at  timestamptz not null default now(),
  seen_at     timestamptz not null default now(),
  ends_at     timestamptz not null,
  foreign key (workshop_id, person_id) references person
);
create index session_of_person on session (workshop_id, person_id);

-- A link with which a person sets a password, once.
create table invitation (
  token_hash  bytea primary key,
  workshop_id uuid not null,
  person_id   uuid not null,
  created_at  timestamptz not null default now(),
  ends_at     timestamptz not null,
  used_at     timestamptz,
  foreign key (workshop_id, person_id) references person
);

-- Failed tries to sign in, by the name and by the address they came from, so that several servers agree.
create table sign_in_failure (
  key      text primary key,
  failures integer not null,
  since    timestamptz not null
);
