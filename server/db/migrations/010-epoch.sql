alter table workshop
  -- Data that were brought back from a backup are others than those seen before, though their versions may be the same:
  -- a version counts together with the epoch that it was seen in.
  add column epoch uuid not null default gen_random_uuid(),
  -- When what was deleted was last looked through, and since when the clock has gone on from there without a leap.
  add column looked_at timestamptz not null default now(),
  add column clock_since timestamptz not null default now() - interval '30 days';
