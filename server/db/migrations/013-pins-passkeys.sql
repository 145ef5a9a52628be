-- A browser that several people share: each may come back to it with a short PIN. Only the hash of the browser's
-- token is kept, and a PIN is of no use in another browser.
create table pin (
  browser_hash bytea not null,
  workshop_id  uuid not null,
  person_id    uuid not null,
  hash         text not null,
  failures     integer not null default 0,
  created_at   timestamptz not null default now(),
  primary key (browser_hash, person_id),
  foreign key (workshop_id, person_id) references person on delete cascade
);
create index pin_of_person on pin (workshop_id, person_id);

-- The browser that a session is in, once a PIN was set in it.
alter table session add browser_hash bytea;

create table passkey (
  passkey_id  text primary key,
  workshop_id uuid not null,
  person_id   uuid not null,
  public_key  bytea not null,
  counter     bigint not null,
  transports  text[] not null,
  device      text not null,
  created_at  timestamptz not null default now(),
  used_at     timestamptz,
  foreign key (workshop_id, person_id) references person on delete cascade
);
create index passkey_of_person on passkey (workshop_id, person_id);

-- What a passkey has to sign, once; of a person who adds one, or of nobody yet.
create table passkey_challenge (
  challenge text primary key,
  person_id uuid,
  ends_at   timestamptz not null
);

alter table pin enable row level security;
create policy scope on pin using (is_in_scope(workshop_id));
alter table passkey enable row level security;
create policy scope on passkey using (is_in_scope(workshop_id));
