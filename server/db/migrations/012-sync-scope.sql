-- Orders of devices that were carried out: one that is sent again is not carried out twice.
create table job_change (
  workshop_id uuid not null,
  job_id      uuid not null,
  change_id   uuid not null,
  version     integer not null,
  at          timestamptz not null default now(),
  primary key (workshop_id, job_id, change_id),
  foreign key (workshop_id, job_id) references job on delete cascade
);
create index job_change_age on job_change (at);

-- Every server hears that a job has another version, is deleted or restored.
create function tell_job() returns trigger language plpgsql as $$
begin
  perform pg_notify('job', json_build_object('workshop', new.workshop_id, 'job', new.job_id,
    'version', new.version, 'by', new.updated_by, 'isDeleted', new.deleted_at is not null)::text);
  return null;
end
$$;
create trigger job_told after insert on job for each row execute function tell_job();
create trigger job_change_told after update on job for each row
  when (old.version <> new.version or old.deleted_at is distinct from new.deleted_at) execute function tell_job();

-- Who has which job open, in which window. Lost with the server: windows tell it again.
create unlogged table presence (
  workshop_id uuid not null,
  window_id   uuid not null,
  job_id      uuid not null,
  person      text not null,
  view        text not null,
  seen_at     timestamptz not null default now(),
  primary key (workshop_id, window_id),
  foreign key (workshop_id) references workshop on delete cascade
);
create index presence_of_job on presence (workshop_id, job_id);

-- Keys of programs. Only the hash of a key is kept.
create table api_token (
  workshop_id uuid not null references workshop,
  token_id    uuid not null default gen_random_uuid(),
  token_hash  bytea not null unique,
  name        text not null check (length(name) between 1 and 100),
  role        text not null check (role in ('owner', 'installer', 'apprentice')),
  created_at  timestamptz not null default now(),
  created_by  text not null,
  ends_at     timestamptz not null,
  used_at     timestamptz,
  primary key (workshop_id, token_id)
);

-- The application sees the rows of the workshop that its connection is set to, whatever a statement asks for.
-- The owner of the tables, who migrates and restores, sees all.
create function is_in_scope(workshop uuid) returns boolean language sql stable as
  $$ select coalesce(current_setting('jovial.scope', true), '') in (workshop::text, 'all') $$;
do $$
declare
  name text;
begin
  foreach name in array array['workshop', 'job', 'job_history', 'job_change', 'shelf_part', 'photo', 'sheet',
    'sheet_pdf', 'person', 'session', 'invitation', 'presence', 'api_token']
  loop
    execute format('alter table %I enable row level security', name);
    execute format('create policy scope on %I using (is_in_scope(workshop_id))', name);
  end loop;
end
$$;
