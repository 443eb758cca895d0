-- What else people call a material of their own, what of it decays within a heap's life, and the
-- wettest it may be while airy. Left open for those that were there.
ALTER TABLE material ADD COLUMN names TEXT NOT NULL DEFAULT '';
ALTER TABLE material ADD COLUMN names_es TEXT NOT NULL DEFAULT '';
ALTER TABLE material ADD COLUMN decays REAL;
ALTER TABLE material ADD COLUMN wet_max REAL;
