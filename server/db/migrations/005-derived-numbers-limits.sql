-- What lists show of a judging carries the versions it came from: what is behind is shown as being judged, and
-- caught up. Nothing was judged yet of a job that has just been saved.
alter table job
  alter column verdict drop not null,
  alter column headline drop not null,
  alter column reason drop not null,
  add column judged_version integer not null default 0,
  add column judged_shop    integer not null default 0;
update job set judged_version = job.version, judged_shop = workshop.version
  from workshop where workshop.workshop_id = job.workshop_id;
create index job_behind on job (workshop_id) where judged_version <> version;
create index job_by_shop on job (workshop_id, judged_shop) where stage <> 'done';

-- Numbers of jobs come from the workshop, and no two jobs share one.
alter table workshop add column last_number integer not null default 0;
update workshop set last_number = coalesce((
  select max(number::bigint) from job
  where job.workshop_id = workshop.workshop_id and number ~ '^[0-9]{1,8}$'), 0);
with twice as (
  select workshop_id, job_id, row_number() over (partition by workshop_id, number order by created_at, job_id) as nth
  from job)
update job set number = left(number, 30) || '-' || nth,
  document = jsonb_set(document, '{job,number}', to_jsonb(left(number, 30) || '-' || nth))
  from twice where twice.workshop_id = job.workshop_id and twice.job_id = job.job_id and nth > 1;
create unique index job_number on job (workshop_id, number);

-- Who took a part off the shelf, and when.
alter table shelf_part add column retired_by text, add column retired_at timestamptz;
create index shelf_by_name on shelf_part (workshop_id, kind, lower(name), code) where is_current and not retired;

-- Changes of a save that are too many to keep: that it was is kept.
alter table job_history alter column changes drop not null;

-- An issued sheet as it was printed.
create table sheet_pdf (
  workshop_id uuid not null,
  job_id      uuid not null,
  count       integer not null,
  data        bytea not null,
  primary key (workshop_id, job_id, count),
  foreign key (workshop_id, job_id, count) references sheet on delete cascade
);

-- What photos take: a workshop has room for so much.
alter table photo add column bytes integer not null default 0;
update photo set bytes = octet_length(data);
create index photo_room on photo (workshop_id) include (job_id, bytes);

-- An issued sheet is never taken away either, whoever asks; and so a job that has one stays.
create or replace function keep_sheet() returns trigger language plpgsql as $$
begin
  raise exception 'an issued sheet is never changed or taken away';
end
$$;
create trigger sheet_stays_there before delete on sheet for each row execute function keep_sheet();
create trigger sheets_stay_there before truncate on sheet for each statement execute function keep_sheet();

-- A job that was deleted is kept for a while, to be brought back.
alter table job add column deleted_at timestamptz, add column deleted_by text;
create index job_deleted on job (workshop_id, deleted_at) where deleted_at is not null;
drop index job_recent;
create index job_recent on job (workshop_id, updated_at desc, job_id desc) where deleted_at is null;
