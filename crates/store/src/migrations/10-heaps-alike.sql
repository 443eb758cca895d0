-- A batch may be built as several heaps alike, such as six drums: its amounts are for all of them.
ALTER TABLE batch ADD COLUMN heaps INTEGER NOT NULL DEFAULT 1 CHECK (heaps BETWEEN 1 AND 1000);
