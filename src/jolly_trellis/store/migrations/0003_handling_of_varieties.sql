-- How a variety is handled: bulbs grow on, forked stems catch others, some are dipped, some are opened by hand.
ALTER TABLE variety ADD COLUMN bulb INTEGER NOT NULL DEFAULT 0 CHECK (bulb IN (0, 1));
ALTER TABLE variety ADD COLUMN forked INTEGER NOT NULL DEFAULT 0 CHECK (forked IN (0, 1));
ALTER TABLE variety ADD COLUMN dip INTEGER NOT NULL DEFAULT 0 CHECK (dip IN (0, 1));
ALTER TABLE variety ADD COLUMN fold INTEGER NOT NULL DEFAULT 0 CHECK (fold IN (0, 1));
ALTER TABLE variety ADD COLUMN side_shoots INTEGER NOT NULL DEFAULT 0 CHECK (side_shoots BETWEEN 0 AND 40);

UPDATE variety SET bulb = 1 WHERE key IN (
    'allium',
    'amaryllis',
    'calla',
    'daffodil',
    'freesia',
    'fritillary',
    'gladiolus',
    'grape-hyacinth',
    'hyacinth',
    'iris',
    'lily',
    'narcissus-spray',
    'nerine',
    'tulip'
);
UPDATE variety SET forked = 1 WHERE key IN (
    'beech-branch',
    'blossom-branch',
    'eucalyptus',
    'guelder-rose',
    'gypsophila',
    'hornbeam-branch',
    'hypericum',
    'lilac',
    'magnolia-branch',
    'olive',
    'pittosporum',
    'queen-annes-lace',
    'quince-branch',
    'rosehip',
    'sea-holly',
    'snowberry',
    'solidago',
    'spray-rose',
    'statice',
    'waxflower'
);
UPDATE variety SET dip = 1 WHERE key IN (
    'amaranthus',
    'bracken',
    'dahlia',
    'guelder-rose',
    'helleborus',
    'hydrangea',
    'hydrangea-panicle',
    'lilac',
    'poppy',
    'spurge'
);
UPDATE variety SET fold = 1 WHERE key IN (
    'garden-rose',
    'iris',
    'lily',
    'ranunculus',
    'rose',
    'standard-rose',
    'tulip'
);
UPDATE variety SET side_shoots = 1 WHERE key IN ('phlox', 'snapdragon', 'stock', 'veronica');
UPDATE variety SET side_shoots = 2 WHERE key IN ('alstroemeria', 'campanula', 'delphinium', 'eucalyptus', 'feverfew', 'hypericum', 'larkspur', 'lisianthus', 'magnolia-branch', 'olive', 'pittosporum', 'rosehip', 'sea-holly', 'snowberry', 'solidago', 'spray-carnation', 'spray-rose', 'statice');
UPDATE variety SET side_shoots = 3 WHERE key IN ('aster', 'beech-branch', 'blossom-branch', 'gypsophila', 'hornbeam-branch', 'quince-branch', 'spray-chrysanthemum', 'waxflower');
