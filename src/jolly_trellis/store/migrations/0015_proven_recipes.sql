-- Recipes that the studio has proven and named; a deleted one can be brought back.
CREATE TABLE proven_recipe (
    id INTEGER PRIMARY KEY,
    name TEXT NOT NULL,
    body TEXT NOT NULL CHECK (json_valid(body)),
    deleted_at TEXT
) STRICT;
CREATE UNIQUE INDEX proven_recipe_name ON proven_recipe (name) WHERE deleted_at IS NULL;

WITH new (key, name, measured_by, pack, price, spare, supplier, provenance) AS (
    VALUES
        ('hook-wire-07', 'wire for hooks, 0.7 mm', 'length', 150.0, 8.0, 0.2, 'sundries', '{"kind":"estimate","source":"trade pack; price is an estimate"}'),
        ('hook-wire-13', 'wire for hooks, 1.3 mm', 'length', 70.0, 9.8, 0.2, 'sundries', '{"kind":"estimate","source":"trade pack; price is an estimate"}'),
        ('bind-wire', 'binding wire, 0.7 mm', 'length', 100.0, 4.5, 0.2, 'sundries', '{"kind":"estimate","source":"trade pack; price is an estimate"}'),
        ('stem-wire-04', 'stem wire, 0.4 mm', 'length', 150.0, 5.0, 0.2, 'sundries', '{"kind":"estimate","source":"trade pack; price is an estimate"}'),
        ('stem-wire-055', 'stem wire, 0.55 mm', 'length', 120.0, 5.2, 0.2, 'sundries', '{"kind":"estimate","source":"trade pack; price is an estimate"}'),
        ('stem-wire-07', 'stem wire, 0.7 mm', 'length', 90.0, 5.4, 0.2, 'sundries', '{"kind":"estimate","source":"trade pack; price is an estimate"}'),
        ('stem-wire-09', 'stem wire, 0.9 mm', 'length', 60.0, 5.6, 0.2, 'sundries', '{"kind":"estimate","source":"trade pack; price is an estimate"}'),
        ('pin', 'lapel pin', 'piece', 50.0, 4.0, 0.1, 'sundries', '{"kind":"estimate","source":"trade pack; price is an estimate"}'),
        ('cloth', 'cloth, towel or burlap, 0.5 m²', 'piece', 1.0, 3.5, 0.0, 'hardware', '{"kind":"estimate","source":"trade size; price is an estimate"}'),
        ('berry-sprig', 'sprig of berries', 'piece', 10.0, 6.5, 0.1, 'market', '{"kind":"estimate","source":"trade pack; price is an estimate"}'),
        ('shackle', 'shackle, marked', 'piece', 1.0, 3.2, 0.0, 'rigging', '{"kind":"estimate","source":"trade size; price is an estimate"}'),
        ('sling', 'round sling, 1 m, marked', 'piece', 1.0, 7.5, 0.0, 'rigging', '{"kind":"estimate","source":"trade size; price is an estimate"}'),
        ('eye-bolt', 'eye bolt, marked', 'piece', 1.0, 4.1, 0.0, 'rigging', '{"kind":"estimate","source":"trade size; price is an estimate"}'),
        ('carabiner', 'carabiner, marked', 'piece', 1.0, 5.8, 0.0, 'rigging', '{"kind":"estimate","source":"trade size; price is an estimate"}'),
        ('swivel', 'swivel, marked', 'piece', 1.0, 6.4, 0.0, 'rigging', '{"kind":"estimate","source":"trade size; price is an estimate"}'),
        ('turnbuckle', 'turnbuckle, marked', 'piece', 1.0, 5.2, 0.0, 'rigging', '{"kind":"estimate","source":"trade size; price is an estimate"}')
)
INSERT INTO supply (position, key, name, measured_by, pack, price, spare, supplier, provenance)
SELECT
    coalesce((SELECT max(position) FROM supply), 0) + row_number() OVER (),
    key, name, measured_by, pack, price, spare, supplier, provenance
FROM new
WHERE EXISTS (SELECT 1 FROM vessel) AND key NOT IN (SELECT key FROM supply);
