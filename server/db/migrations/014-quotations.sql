-- What the workshop puts on its quotations. It decides no verdict, so it has a version of its own.
alter table workshop
  add column letterhead jsonb not null default '{}',
  add column letterhead_version integer not null default 1;

alter table sheet drop constraint sheet_kind_check;
alter table sheet add constraint sheet_kind_check check (kind in ('specification', 'record', 'quotation'));

-- What a customer answered to a quotation: once, and as unchanging as the quotation.
create table quotation_answer (
  workshop_id uuid not null,
  job_id      uuid not null,
  count       integer not null,
  answer      text not null check (answer in ('accepted', 'declined')),
  name        text not null,
  note        text not null,
  options     text[] not null,
  at          timestamptz not null default now(),
  by          text not null,
  primary key (workshop_id, job_id, count),
  foreign key (workshop_id, job_id, count) references sheet on delete cascade
);
create trigger answer_stays before update on quotation_answer for each row execute function keep_sheet();
alter table quotation_answer enable row level security;
create policy scope on quotation_answer using (is_in_scope(workshop_id));
