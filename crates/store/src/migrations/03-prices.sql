-- What one of a lot's unit costs, in the farm's own money; nothing known if null.
ALTER TABLE lot ADD COLUMN price REAL CHECK (price IS NULL OR (price >= 0 AND price <= 1000000));
