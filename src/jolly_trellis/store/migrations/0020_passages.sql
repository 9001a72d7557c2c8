-- Where a part is made, how long it is cooled and when its stems go in are written anew in plans, their steps and the
-- proven recipes (see `store/rewriting.py`). A supply that came later: the block under a bowl in an urn.
-- Below how many degrees a variety is chilled.
WITH new (key, name, measured_by, pack, price, spare, supplier, provenance) AS (
    VALUES
        ('riser-block', 'wooden block to raise a bowl in an urn', 'piece', 1.0, 4.5, 0.0, 'hardware', '{"kind":"estimate","source":"trade size; price is an estimate"}')
)
INSERT INTO supply (position, key, name, measured_by, pack, price, spare, supplier, provenance)
SELECT
    coalesce((SELECT max(position) FROM supply), 0) + row_number() OVER (),
    key, name, measured_by, pack, price, spare, supplier, provenance
FROM new
WHERE EXISTS (SELECT 1 FROM vessel)
  AND key NOT IN (SELECT key FROM supply)
  AND key NOT IN (SELECT key FROM deleted_thing WHERE kind = 'supply');

ALTER TABLE variety ADD COLUMN least_c REAL NOT NULL DEFAULT 1 CHECK (least_c BETWEEN -5 AND 25);
UPDATE variety SET least_c = CASE key WHEN 'dahlia' THEN 3 ELSE 11 END
WHERE key IN ('anthurium', 'strelitzia', 'phalaenopsis', 'celosia', 'tuberose', 'dahlia');
