-- Beside specifications, records of how a job was fitted and proved are issued: signed, and as unchanging.
alter table sheet add column kind text not null default 'specification' check (kind in ('specification', 'record'));
