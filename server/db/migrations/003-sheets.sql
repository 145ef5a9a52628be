-- Specification sheets as issued. The text is what was issued, to the letter; its digest shows that it still is.
create table sheet (
  workshop_id uuid not null,
  job_id      uuid not null,
  count       integer not null check (count > 0),
  number      text not null,
  name        text not null,
  issued_at   timestamptz not null,
  issued_by   text not null,
  content     text not null,
  digest      text not null,
  primary key (workshop_id, job_id, count),
  foreign key (workshop_id, job_id) references job on delete cascade
);

-- An issued sheet never changes.
create function keep_sheet() returns trigger language plpgsql as $$
begin
  raise exception 'an issued sheet is never changed';
end
$$;
create trigger sheet_stays before update on sheet for each row execute function keep_sheet();
