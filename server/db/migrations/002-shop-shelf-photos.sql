-- What a shop has set: rules it changed, and how it writes quantities.
alter table workshop
  add column rules    jsonb not null default '{}',
  add column units    text not null default 'metric' check (units in ('metric', 'imperial')),
  add column currency text not null default '€',
  add column version  integer not null default 1 check (version > 0);

-- A part in one of its versions. A version never changes once it is there; a job names the one it used.
create table shelf_part (
  workshop_id uuid not null references workshop,
  kind        text not null,
  code        text not null,
  version     integer not null check (version > 0),
  is_current  boolean not null default true,
  retired     boolean not null default false,
  name        text not null,
  maker       text not null,
  part_values jsonb not null,
  search      text not null,
  created_at  timestamptz not null default now(),
  created_by  text not null,
  primary key (workshop_id, kind, code, version)
);
create unique index shelf_current on shelf_part (workshop_id, kind, code) where is_current;

-- Pictures of a station. Checked to be pictures before they come here.
create table photo (
  workshop_id uuid not null,
  job_id      uuid not null,
  photo_id    uuid not null default gen_random_uuid(),
  station     text not null,
  name        text not null,
  mime        text not null,
  width       integer not null,
  height      integer not null,
  data        bytea not null,
  taken_at    timestamptz not null default now(),
  taken_by    text not null,
  primary key (workshop_id, job_id, photo_id),
  foreign key (workshop_id, job_id) references job on delete cascade
);

-- Searches look for pieces of words among many jobs.
create extension if not exists pg_trgm;
create index job_search on job using gin (search gin_trgm_ops);
create index job_verdict on job (workshop_id, verdict, updated_at desc, job_id);
