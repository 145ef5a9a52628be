create table workshop (
  workshop_id uuid primary key default gen_random_uuid(),
  name        text not null,
  created_at  timestamptz not null default now()
);

-- One customer job. The document is the whole truth; the other columns serve lists and searches
-- and are written from it at every save.
create table job (
  workshop_id uuid not null references workshop,
  job_id      uuid not null default gen_random_uuid(),
  version     integer not null default 1 check (version > 0),
  document    jsonb not null,
  number      text not null,
  name        text not null,
  customer    text not null,
  craft       text,
  stage       text not null,
  due_date    date,
  verdict     text not null,
  headline    text not null,
  reason      text not null,
  search      text not null,
  created_at  timestamptz not null default now(),
  updated_at  timestamptz not null default now(),
  updated_by  text not null,
  primary key (workshop_id, job_id)
);

create index job_recent on job (workshop_id, updated_at desc, job_id);

-- Every change of a job, property by property with what was before and after, so that it can be
-- shown and undone.
create table job_history (
  workshop_id uuid not null,
  job_id      uuid not null,
  version     integer not null,
  at          timestamptz not null default now(),
  who         text not null,
  changes     jsonb not null,
  primary key (workshop_id, job_id, version),
  foreign key (workshop_id, job_id) references job on delete cascade
);
