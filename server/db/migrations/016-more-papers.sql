-- Every paper of a job is issued: it is frozen, numbered and replaced, never changed.
alter table sheet drop constraint sheet_kind_check;
alter table sheet add constraint sheet_kind_check check (
  kind in ('summary', 'quotation', 'specification', 'wiring', 'labels', 'cards', 'record', 'booklet')
);

-- The customer can take another answer than the chosen one.
alter table quotation_answer add column alternative text not null default '';

-- What customers write from their page. It is only added to.
create table customer_message (
  message_id  uuid primary key default gen_random_uuid(),
  workshop_id uuid not null,
  job_id      uuid not null,
  name        text not null,
  words       text not null,
  at          timestamptz not null default now(),
  foreign key (workshop_id, job_id) references job on delete cascade
);
create index customer_message_of_job on customer_message (workshop_id, job_id, at);
alter table customer_message enable row level security;
create policy scope on customer_message using (is_in_scope(workshop_id));
