-- Supplies that migration 15 gained after it had been used: a studio that had run it before has them now too.
WITH new (key, name, measured_by, pack, price, spare, supplier, provenance) AS (
    VALUES
        ('stem-wire-04', 'stem wire, 0.4 mm', 'length', 150.0, 5.0, 0.2, 'sundries', '{"kind":"estimate","source":"trade pack; price is an estimate"}'),
        ('stem-wire-055', 'stem wire, 0.55 mm', 'length', 120.0, 5.2, 0.2, 'sundries', '{"kind":"estimate","source":"trade pack; price is an estimate"}'),
        ('stem-wire-07', 'stem wire, 0.7 mm', 'length', 90.0, 5.4, 0.2, 'sundries', '{"kind":"estimate","source":"trade pack; price is an estimate"}'),
        ('stem-wire-09', 'stem wire, 0.9 mm', 'length', 60.0, 5.6, 0.2, 'sundries', '{"kind":"estimate","source":"trade pack; price is an estimate"}'),
        ('pin', 'lapel pin', 'piece', 50.0, 4.0, 0.1, 'sundries', '{"kind":"estimate","source":"trade pack; price is an estimate"}'),
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
WHERE EXISTS (SELECT 1 FROM vessel)
  AND key NOT IN (SELECT key FROM supply)
  AND key NOT IN (SELECT key FROM deleted_thing WHERE kind = 'supply');
