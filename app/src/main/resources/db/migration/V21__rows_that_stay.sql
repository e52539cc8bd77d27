-- Datasets whose rows stay in a database elsewhere: where they are and how they are read, and what is known of them.
ALTER TABLE databases_elsewhere ADD COLUMN kind varchar(20) NOT NULL DEFAULT 'POSTGRESQL';
ALTER TABLE datasets ADD COLUMN stays jsonb;
ALTER TABLE dataset_versions ADD COLUMN face jsonb;
