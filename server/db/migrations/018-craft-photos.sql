-- A photograph of a craft is an entry of its logbook, with its picture beside it: both stay.
alter table log_entry drop constraint log_entry_kind_check;
alter table log_entry add constraint log_entry_kind_check
  check (kind in ('visit', 'reading', 'replaced', 'deviation', 'note', 'photo'));

create table craft_photo (
  workshop_id uuid not null,
  entry_id    uuid not null,
  mime        text not null,
  width       integer not null,
  height      integer not null,
  bytes       integer not null,
  data        bytea not null,
  primary key (workshop_id, entry_id),
  foreign key (workshop_id, entry_id) references log_entry on delete cascade
);
alter table craft_photo alter column data set storage external;
create trigger craft_photo_stays before update on craft_photo for each row execute function keep_sheet();
alter table craft_photo enable row level security;
create policy scope on craft_photo using (is_in_scope(workshop_id));
