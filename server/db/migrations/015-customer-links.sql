-- A link for the customer of one job. Only the hash of its secret is kept; a new link ends the one before.
create table customer_link (
  link_hash   bytea primary key,
  workshop_id uuid not null,
  job_id      uuid not null,
  created_at  timestamptz not null default now(),
  created_by  text not null,
  ends_at     timestamptz not null,
  openings    integer not null default 0,
  opened_at   timestamptz,
  foreign key (workshop_id, job_id) references job on delete cascade
);
create index customer_link_of_job on customer_link (workshop_id, job_id);
alter table customer_link enable row level security;
create policy scope on customer_link using (is_in_scope(workshop_id));
