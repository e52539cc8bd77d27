-- Columns that mean the same as columns of other datasets: [{column, dataset, equals}].
ALTER TABLE datasets ADD COLUMN ties jsonb;
-- Whether a decision about words holds for other datasets too.
ALTER TABLE placing_decisions ADD COLUMN shared boolean NOT NULL DEFAULT false;
