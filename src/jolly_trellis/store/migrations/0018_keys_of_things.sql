-- Vessels and stands of plans say which of the stores they are, what is hired which thing it is: until now they were
-- joined by their names. Two of one name cannot be told apart: the first in the stores is taken.
UPDATE part SET design = with_keys(
    design, (SELECT json_group_object(name, key) FROM (SELECT name, key FROM vessel ORDER BY position DESC, key DESC)),
    (SELECT json_group_object(name, key) FROM (SELECT name, key FROM stand ORDER BY position DESC, key DESC)));
UPDATE event SET brief = with_keys(
    brief, (SELECT json_group_object(name, key) FROM (SELECT name, key FROM vessel ORDER BY position DESC, key DESC)),
    (SELECT json_group_object(name, key) FROM (SELECT name, key FROM stand ORDER BY position DESC, key DESC)));
UPDATE change SET changes = with_keys(
    changes, (SELECT json_group_object(name, key) FROM (SELECT name, key FROM vessel ORDER BY position DESC, key DESC)),
    (SELECT json_group_object(name, key) FROM (SELECT name, key FROM stand ORDER BY position DESC, key DESC)));
UPDATE homecoming SET lines = with_keys(lines, '{}', '{}');
UPDATE tick SET line = 'stand:' || (SELECT key FROM stand WHERE 'stand-' || name = line ORDER BY position LIMIT 1)
WHERE list IN ('out', 'home') AND line IN (SELECT 'stand-' || name FROM stand);
UPDATE tick SET line = 'vessels-vessel:'
    || (SELECT key FROM vessel WHERE 'vessels-' || name = line ORDER BY position LIMIT 1)
WHERE list = 'goods in' AND line IN (SELECT 'vessels-' || name FROM vessel);
UPDATE tick SET line = 'vessels-stand:' || (SELECT key FROM stand WHERE 'vessels-' || name = line ORDER BY position LIMIT 1)
WHERE list = 'goods in' AND line IN (SELECT 'vessels-' || name FROM stand);
UPDATE OR IGNORE calendar_entry SET person = slug(person) WHERE person <> '';
