-- Up to which batch readings are put together by hour and day, which is done less often than by minute.
ALTER TABLE live_feeds ADD COLUMN rolled_coarser_batch bigint NOT NULL DEFAULT 0;
UPDATE live_feeds SET rolled_coarser_batch = rolled_batch;

-- The password for a broker is sealed, which takes more room. One that was kept as it was has to be written again.
ALTER TABLE live_feeds ALTER COLUMN broker_word TYPE varchar(800);

-- Samples are numbered on and on.
ALTER TABLE live_samples ALTER COLUMN number TYPE bigint;
