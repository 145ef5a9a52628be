-- Lists are sorted by due date, name or customer; by number the unique index serves.
-- A job without a due date comes after every date.
create index job_by_due on job (workshop_id, (coalesce(due_date - date '2000-01-01', 2147483647)), job_id)
  where deleted_at is null;
create index job_by_name on job (workshop_id, lower(name), job_id) where deleted_at is null;
create index job_by_customer on job (workshop_id, lower(customer), job_id) where deleted_at is null;
