-- Lists show both verdicts of a job: as found and, once an answer is chosen, as specified.
alter table job
  add column specified_verdict  text,
  add column specified_headline text;
-- Verdicts that lists show are words that changed: all jobs are judged again.
update job set judged_version = 0 where deleted_at is null;
