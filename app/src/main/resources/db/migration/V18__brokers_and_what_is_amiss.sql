-- The broker that a feed is read from (a Broker), and the password for it.
ALTER TABLE live_feeds ADD COLUMN broker jsonb, ADD COLUMN broker_word varchar(400);
