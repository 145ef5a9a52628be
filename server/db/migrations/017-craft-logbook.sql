-- Customers and their craft. Jobs belong to a craft; the head of a job says what it knew of both.
create table customer (
  workshop_id uuid not null references workshop,
  customer_id uuid not null default gen_random_uuid(),
  name        text not null,
  contact     text not null default '',
  notes       text not null default '',
  search      text not null,
  created_at  timestamptz not null default now(),
  updated_at  timestamptz not null default now(),
  updated_by  text not null,
  erased_at   timestamptz,
  primary key (workshop_id, customer_id)
);
create index customer_by_name on customer (workshop_id, lower(name), customer_id);

create table craft (
  workshop_id  uuid not null references workshop,
  craft_id     uuid not null default gen_random_uuid(),
  customer_id  uuid,
  name         text not null,
  kind         text check (kind in ('vessel', 'vehicle', 'trailer', 'motorcycle', 'cabin')),
  registration text not null default '',
  location     text not null default '',
  notes        text not null default '',
  -- Craft of one customer with the same type are alike.
  type         text not null default '',
  search       text not null,
  version      integer not null default 1,
  -- What the logbook says of the next visit: by which rules and on which day it was worked out. Null once it is written to.
  checks       jsonb,
  checks_shop  integer,
  checks_day   date,
  created_at   timestamptz not null default now(),
  updated_at   timestamptz not null default now(),
  updated_by   text not null,
  primary key (workshop_id, craft_id),
  foreign key (workshop_id, customer_id) references customer
);
create index craft_by_name on craft (workshop_id, lower(name), craft_id);
create index craft_of_customer on craft (workshop_id, customer_id);
create index craft_by_registration on craft (workshop_id, lower(registration)) where registration <> '';

alter table job
  add column craft_id    uuid,
  add column customer_id uuid,
  add foreign key (workshop_id, craft_id) references craft,
  add foreign key (workshop_id, customer_id) references customer;
create index job_of_craft on job (workshop_id, craft_id, created_at);
create index job_of_customer on job (workshop_id, customer_id);

-- Jobs get their craft: the same registration, or the same name, of the same customer is the same craft.
create temporary table head on commit drop as
select workshop_id, job_id, created_at, updated_by,
  trim(customer) as customer, contact, name, kind, registration, location,
  -- Customers of one name are one, unless their contacts differ.
  case when trim(customer) = '' then null else lower(trim(customer)) || '|' || coalesce(nullif(lower(contact), ''),
    max(nullif(lower(contact), '')) over (partition by workshop_id, lower(trim(customer))), '') end as owner
from (
  select workshop_id, job_id, created_at, updated_by, customer, name, craft as kind,
    trim(coalesce(document->'job'->>'contact', '')) as contact,
    trim(coalesce(document->'job'->>'registration', '')) as registration,
    trim(coalesce(document->'job'->>'location', '')) as location
  from job
) as heads;
alter table head add column craft_key text;
update head set craft_key = case
  when registration <> '' then coalesce(owner, '') || '|r|' || lower(registration)
  when owner is not null and trim(name) <> '' then owner || '|n|' || lower(trim(name))
  else job_id::text end;

create temporary table owners on commit drop as
select distinct on (workshop_id, owner) workshop_id, owner, gen_random_uuid() as customer_id, customer, contact,
  created_at, updated_by
from head where owner is not null order by workshop_id, owner, (contact = ''), created_at desc;
insert into customer (workshop_id, customer_id, name, contact, search, created_at, updated_by)
select workshop_id, customer_id, customer, contact, lower(customer || ' ' || contact), created_at, updated_by from owners;

create temporary table crafts on commit drop as
select distinct on (workshop_id, craft_key) workshop_id, craft_key, gen_random_uuid() as craft_id, owner, name, kind,
  registration, location, customer, contact, created_at, updated_by
from head order by workshop_id, craft_key, created_at desc;
insert into craft (workshop_id, craft_id, customer_id, name, kind, registration, location, search, created_at, updated_by)
select c.workshop_id, craft_id, customer_id, name, kind, registration, location,
  lower(concat_ws(' ', name, registration, location)), c.created_at, c.updated_by
from crafts as c left join owners as o on (o.workshop_id, o.owner) = (c.workshop_id, c.owner);

update job set craft_id = c.craft_id, customer_id = o.customer_id
from head as h
  join crafts as c on (c.workshop_id, c.craft_key) = (h.workshop_id, h.craft_key)
  left join owners as o on (o.workshop_id, o.owner) = (h.workshop_id, h.owner)
where (job.workshop_id, job.job_id) = (h.workshop_id, h.job_id);

-- The logbook of a craft. It is only added to: a correction is a new entry that names the old one.
create table log_entry (
  workshop_id  uuid not null,
  entry_id     uuid not null default gen_random_uuid(),
  -- The order in which entries were added.
  place        bigint generated always as identity,
  craft_id     uuid not null,
  job_id       uuid,
  at           timestamptz not null,
  added_at     timestamptz not null default now(),
  added_by     text not null,
  kind         text not null check (kind in ('visit', 'reading', 'replaced', 'deviation', 'note')),
  quantity     text,
  subject      text not null default '',
  value        double precision,
  expected     double precision,
  tolerance    double precision,
  words        text not null default '',
  serial       text not null default '',
  warranty_end date,
  corrects     uuid,
  source       text not null check (source in ('typed', 'prove', 'test', 'csv')),
  primary key (workshop_id, entry_id),
  foreign key (workshop_id, craft_id) references craft on delete cascade,
  foreign key (workshop_id, corrects) references log_entry
);
create index log_entry_of_craft on log_entry (workshop_id, craft_id, at);
create index log_entry_by_quantity on log_entry (workshop_id, quantity) where expected is not null;
create index log_entry_corrects on log_entry (workshop_id, corrects) where corrects is not null;
create trigger log_entry_stays before update on log_entry for each row execute function keep_sheet();

create table reminder (
  workshop_id uuid not null,
  reminder_id uuid not null default gen_random_uuid(),
  craft_id    uuid not null,
  kind        text not null check (kind in ('retorque', 'yearly', 'storage', 'top-up', 'warranty', 'hand')),
  -- What it was made for, once a craft and kind: a record, or an entry of the logbook; null if a person made it.
  source      text,
  due         date not null,
  words       text not null,
  created_at  timestamptz not null default now(),
  created_by  text not null,
  done_at     timestamptz,
  done_by     text,
  primary key (workshop_id, reminder_id),
  unique (workshop_id, craft_id, kind, source),
  foreign key (workshop_id, craft_id) references craft on delete cascade
);
create index reminder_due on reminder (workshop_id, due) where done_at is null;
create index reminder_of_craft on reminder (workshop_id, craft_id, due);

-- An address at which calendars read the reminders. Only the hash of its secret is kept.
create table calendar_feed (
  token_hash  bytea primary key,
  workshop_id uuid not null unique references workshop,
  created_at  timestamptz not null default now(),
  created_by  text not null,
  read_at     timestamptz
);

do $$
declare
  name text;
begin
  foreach name in array array['customer', 'craft', 'log_entry', 'reminder', 'calendar_feed']
  loop
    execute format('alter table %I enable row level security', name);
    execute format('create policy scope on %I using (is_in_scope(workshop_id))', name);
  end loop;
end
$$;

-- A customer’s name can be blanked in what is otherwise never changed. The application may do it by these functions alone.
alter table sheet add column erased_at timestamptz;
create or replace function keep_sheet() returns trigger language plpgsql as $$
begin
  if coalesce(current_setting('jovial.erasing', true), '') = 'yes' then return new; end if;
  raise exception 'an issued sheet is never changed or taken away';
end
$$;
create function erase_paper(of_workshop uuid, of_job uuid, of_count integer, new_name text, new_content text, new_digest text)
returns void language plpgsql security definer set search_path = public as $$
begin
  if not is_in_scope(of_workshop) then raise exception 'another workshop'; end if;
  perform set_config('jovial.erasing', 'yes', true);
  update sheet s set name = new_name, content = new_content, digest = new_digest, erased_at = now()
    where (s.workshop_id, s.job_id, s.count) = (of_workshop, of_job, of_count);
  update quotation_answer a set name = 'Erased customer', note = ''
    where (a.workshop_id, a.job_id, a.count) = (of_workshop, of_job, of_count);
  delete from sheet_pdf p where (p.workshop_id, p.job_id, p.count) = (of_workshop, of_job, of_count);
  perform set_config('jovial.erasing', '', true);
end
$$;
create function erase_entry(of_workshop uuid, of_entry uuid, new_words text)
returns void language plpgsql security definer set search_path = public as $$
begin
  if not is_in_scope(of_workshop) then raise exception 'another workshop'; end if;
  perform set_config('jovial.erasing', 'yes', true);
  update log_entry e set words = new_words where (e.workshop_id, e.entry_id) = (of_workshop, of_entry);
  perform set_config('jovial.erasing', '', true);
end
$$;
create function erase_messages(of_workshop uuid, of_job uuid)
returns void language plpgsql security definer set search_path = public as $$
begin
  if not is_in_scope(of_workshop) then raise exception 'another workshop'; end if;
  delete from customer_message m where (m.workshop_id, m.job_id) = (of_workshop, of_job);
  delete from customer_link l where (l.workshop_id, l.job_id) = (of_workshop, of_job);
end
$$;
revoke all on function erase_paper, erase_entry, erase_messages from public;
