-- What is behind is found by an index that holds nothing else, however many jobs there are: the newest first.
drop index job_behind;
create index job_behind on job (updated_at desc) where judged_version <> version and deleted_at is null;
drop index job_by_shop;
create index job_by_shop on job (workshop_id, judged_shop)
  where stage <> 'done' and judged_version = version and deleted_at is null;
