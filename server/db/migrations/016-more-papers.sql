-- Every paper of a job is issued: it is frozen, numbered and replaced, never changed.
alter table sheet drop constraint sheet_kind_check;
alter table sheet add constraint sheet_kind_check check (
  kind in ('summary', 'quotation', 'specification', 'wiring', 'labels', 'cards', 'record', 'booklet')
);

-- The customer can take another answer than the chosen one.
alter table quotation_answer add column alternative text not null default '';
