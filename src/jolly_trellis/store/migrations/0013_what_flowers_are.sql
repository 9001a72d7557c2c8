-- What a variety is, what else it is called, when it is to be had, and each of its hazards by its name.
ALTER TABLE variety ADD COLUMN kind TEXT NOT NULL DEFAULT 'fresh'
CHECK (kind IN ('fresh', 'dried', 'preserved', 'artificial', 'foraged', 'own garden'));
ALTER TABLE variety ADD COLUMN botanical TEXT NOT NULL DEFAULT '';
ALTER TABLE variety ADD COLUMN names TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(names));
ALTER TABLE variety ADD COLUMN season TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(season));
ALTER TABLE variety ADD COLUMN hazards TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(hazards));
UPDATE variety SET hazards = json_array('poison', 'thorns') WHERE toxic = 1 AND thorny = 1;
UPDATE variety SET hazards = json_array('poison') WHERE toxic = 1 AND thorny = 0;
UPDATE variety SET hazards = json_array('thorns') WHERE toxic = 0 AND thorny = 1;

-- What is known of the varieties that came with the program; a studio's own flags stay in it.
WITH known (key, botanical, names, season, hazards) AS (
    VALUES
        ('rose', 'Rosa', '["roses", "hybrid tea", "cut rose"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["thorns"]'),
        ('spray-rose', 'Rosa', '["spray roses", "cluster rose"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["thorns"]'),
        ('garden-rose', 'Rosa', '["english rose", "old rose", "garden roses", "cabbage rose"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["thorns"]'),
        ('peony', 'Paeonia lactiflora', '["peonies", "piony", "paeony"]', '[4, 5, 6]', '["pets"]'),
        ('ranunculus', 'Ranunculus asiaticus', '["persian buttercup", "ranunculas"]', '[1, 2, 3, 4, 5, 12]', '["sap", "poison", "pets"]'),
        ('tulip', 'Tulipa', '["tulips"]', '[1, 2, 3, 4, 5, 11, 12]', '["sap", "allergen", "poison", "pets"]'),
        ('anemone', 'Anemone coronaria', '["windflower", "poppy anemone", "anenome"]', '[1, 2, 3, 4, 5, 10, 11, 12]', '["sap", "poison", "pets"]'),
        ('daffodil', 'Narcissus', '["narcissus", "lent lily", "jonquil", "daffs"]', '[1, 2, 3, 4, 12]', '["sap", "poison", "pets"]'),
        ('hyacinth', 'Hyacinthus orientalis', '["hyacinths"]', '[1, 2, 3, 4, 11, 12]', '["sap", "poison", "pets", "scent"]'),
        ('lisianthus', 'Eustoma grandiflorum', '["eustoma", "texas bluebell", "prairie gentian", "lissy"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '[]'),
        ('carnation', 'Dianthus caryophyllus', '["dianthus", "clove pink", "gillyflower"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["pets"]'),
        ('spray-carnation', 'Dianthus caryophyllus', '["mini carnation", "spray dianthus", "mini carn"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["pets"]'),
        ('chrysanthemum', 'Chrysanthemum × morifolium', '["mum", "mums", "bloom chrysanthemum", "chrysanth"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["allergen", "pets"]'),
        ('spray-chrysanthemum', 'Chrysanthemum × morifolium', '["spray mum", "pompon", "button mum", "santini"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["allergen", "pets"]'),
        ('hydrangea', 'Hydrangea macrophylla', '["hortensia", "mophead"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["poison", "pets"]'),
        ('dahlia', 'Dahlia', '["dahlias"]', '[7, 8, 9, 10]', '["allergen", "pets"]'),
        ('zinnia', 'Zinnia elegans', '["zinnias"]', '[7, 8, 9, 10]', '[]'),
        ('cosmos', 'Cosmos bipinnatus', '["mexican aster", "cosmea"]', '[6, 7, 8, 9, 10]', '[]'),
        ('scabious', 'Scabiosa', '["scabiosa", "pincushion flower"]', '[5, 6, 7, 8, 9, 10]', '[]'),
        ('sweet-pea', 'Lathyrus odoratus', '["sweetpea", "sweet peas"]', '[1, 2, 3, 4, 5, 6, 7, 8]', '["poison", "pets", "scent"]'),
        ('snapdragon', 'Antirrhinum majus', '["antirrhinum", "snaps", "snapdragons"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '[]'),
        ('larkspur', 'Consolida ajacis', '["annual delphinium", "rocket larkspur"]', '[3, 4, 5, 6, 7, 8, 9, 10]', '["sap", "poison", "pets"]'),
        ('delphinium', 'Delphinium elatum', '["delphiniums", "delph"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["sap", "poison", "pets"]'),
        ('stock', 'Matthiola incana', '["gillyflower stock", "matthiola", "stocks"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["scent"]'),
        ('foxglove', 'Digitalis purpurea', '["digitalis"]', '[5, 6, 7, 8]', '["poison", "pets"]'),
        ('gladiolus', 'Gladiolus', '["gladioli", "glads", "sword lily"]', '[5, 6, 7, 8, 9, 10]', '["pets"]'),
        ('liatris', 'Liatris spicata', '["blazing star", "gayfeather"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '[]'),
        ('veronica', 'Veronica spicata', '["speedwell"]', '[5, 6, 7, 8, 9, 10]', '[]'),
        ('gypsophila', 'Gypsophila paniculata', '["baby''s breath", "babys breath", "gyp", "gypsophilia"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["allergen", "pets"]'),
        ('waxflower', 'Chamelaucium uncinatum', '["geraldton wax", "wax flower", "chamelaucium"]', '[1, 2, 3, 4, 5, 11, 12]', '[]'),
        ('statice', 'Limonium sinuatum', '["sea statice", "annual statice"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '[]'),
        ('sea-lavender', 'Limonium latifolium', '["limonium", "caspia", "wild statice"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '[]'),
        ('astilbe', 'Astilbe', '["false goat''s beard", "goats beard"]', '[5, 6, 7, 8, 9, 10]', '[]'),
        ('solidago', 'Solidago', '["solidago", "golden rod", "aaron''s rod"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["invasive"]'),
        ('queen-annes-lace', 'Ammi majus', '["queen anne''s lace", "ammi", "bishop''s weed", "false queen anne''s lace", "bishops flower"]', '[5, 6, 7, 8, 9, 10]', '["light", "poison"]'),
        ('feverfew', 'Tanacetum parthenium', '["tanacetum", "matricaria", "chamomile daisy"]', '[5, 6, 7, 8, 9, 10]', '["allergen", "pets"]'),
        ('amaranthus', 'Amaranthus caudatus', '["love-lies-bleeding", "amaranthus", "love lies bleeding"]', '[7, 8, 9, 10]', '[]'),
        ('lily', 'Lilium', '["lilies", "oriental lily", "lilium", "asiatic lily"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["poison", "pets", "pollen", "scent"]'),
        ('alstroemeria', 'Alstroemeria', '["peruvian lily", "lily of the incas", "alstro", "alstromeria"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["sap", "allergen"]'),
        ('iris', 'Iris × hollandica', '["dutch iris", "flag"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["sap", "poison", "pets"]'),
        ('nigella', 'Nigella damascena', '["love-in-a-mist", "devil-in-the-bush", "love in a mist"]', '[5, 6, 7, 8, 9]', '["poison"]'),
        ('globe-thistle', 'Echinops', '["echinops"]', '[6, 7, 8, 9]', '["thorns"]'),
        ('sea-holly', 'Eryngium', '["eryngium", "thistle", "sea thistle"]', '[5, 6, 7, 8, 9, 10, 11]', '["thorns"]'),
        ('craspedia', 'Pycnosorus globosus', '["billy buttons", "billy balls", "drumstick", "drumsticks"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '[]'),
        ('ruscus', 'Ruscus hypophyllum', '["butcher''s broom", "holland ruscus", "italian ruscus"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["poison"]'),
        ('eucalyptus', 'Eucalyptus', '["silver dollar", "gum", "eucalyptus cinerea"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["pets", "scent"]'),
        ('salal', 'Gaultheria shallon', '["lemon leaf", "gaultheria", "salal tips"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '[]'),
        ('pittosporum', 'Pittosporum tenuifolium', '["pitt", "kohuhu", "pitto"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '[]'),
        ('leatherleaf', 'Rumohra adiantiformis', '["leatherleaf", "leatherleaf fern", "leather leaf"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '[]'),
        ('asparagus-fern', 'Asparagus densiflorus', '["ming fern", "foxtail fern", "tree asparagus"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["poison", "pets", "thorns"]'),
        ('ivy', 'Hedera helix', '["ivy", "english ivy", "hedera"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["sap", "allergen", "poison", "pets", "invasive"]'),
        ('spurge', 'Euphorbia', '["euphorbia", "milkweed spurge"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["sap", "poison", "pets"]'),
        ('quince-branch', 'Chaenomeles', '["flowering quince", "japonica", "quince"]', '[1, 2, 3, 4, 5]', '["thorns"]'),
        ('beech-branch', 'Fagus sylvatica', '["beech", "copper beech"]', '[5, 6, 7, 8, 9, 10]', '[]'),
        ('blossom-branch', 'Prunus', '["cherry blossom", "flowering cherry", "blossom"]', '[2, 3, 4]', '["poison", "pets"]'),
        ('willow-stem', 'Salix', '["willow", "osier", "pussy willow"]', '[1, 2, 3, 4, 11, 12]', '[]'),
        ('standard-rose', 'Rosa', '["long-stem rose", "premium rose", "large-headed rose"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["thorns"]'),
        ('tree-peony', 'Paeonia × suffruticosa', '["moutan", "mudan"]', '[4, 5]', '["pets"]'),
        ('lilac', 'Syringa vulgaris', '["syringa", "lilacs"]', '[1, 2, 3, 4, 5, 12]', '["scent"]'),
        ('guelder-rose', 'Viburnum opulus', '["viburnum", "snowball", "snowball bush", "viburnum snowball"]', '[1, 2, 3, 4, 5, 12]', '["poison", "pets"]'),
        ('hydrangea-panicle', 'Hydrangea paniculata', '["panicled hydrangea", "peegee", "limelight hydrangea"]', '[7, 8, 9, 10]', '["poison", "pets"]'),
        ('helleborus', 'Helleborus', '["christmas rose", "lenten rose", "hellebores"]', '[1, 2, 3, 4, 12]', '["sap", "poison", "pets"]'),
        ('poppy', 'Papaver nudicaule', '["iceland poppies", "papaver"]', '[1, 2, 3, 4, 5, 12]', '["sap", "poison"]'),
        ('fritillary', 'Fritillaria', '["fritillaria", "snake''s head", "crown imperial"]', '[2, 3, 4, 5]', '["poison", "pets"]'),
        ('grape-hyacinth', 'Muscari', '["muscari"]', '[1, 2, 3, 4, 12]', '["pets"]'),
        ('narcissus-spray', 'Narcissus tazetta', '["paperwhite", "paper white", "tazetta", "spray daffodil"]', '[1, 2, 3, 11, 12]', '["sap", "poison", "pets", "scent"]'),
        ('allium', 'Allium', '["ornamental onion", "drumstick allium"]', '[4, 5, 6, 7, 8]', '["pets", "scent"]'),
        ('agapanthus', 'Agapanthus', '["lily of the nile", "african lily"]', '[5, 6, 7, 8, 9]', '["sap", "pets"]'),
        ('eremurus', 'Eremurus', '["desert candle", "foxtail lilies", "eremurus"]', '[5, 6, 7, 8]', '[]'),
        ('campanula', 'Campanula', '["campanula", "canterbury bells", "bell flower"]', '[3, 4, 5, 6, 7, 8, 9]', '[]'),
        ('phlox', 'Phlox paniculata', '["garden phlox"]', '[5, 6, 7, 8, 9, 10]', '[]'),
        ('sunflower', 'Helianthus annuus', '["sunflowers", "helianthus"]', '[5, 6, 7, 8, 9, 10, 11]', '["allergen", "pollen"]'),
        ('rudbeckia', 'Rudbeckia hirta', '["black-eyed susan", "rudbeckia", "gloriosa daisy"]', '[7, 8, 9, 10]', '[]'),
        ('echinacea', 'Echinacea purpurea', '["echinacea"]', '[6, 7, 8, 9, 10]', '[]'),
        ('aster', 'Symphyotrichum novi-belgii', '["michaelmas daisy", "monte casino", "september flower"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '[]'),
        ('gerbera', 'Gerbera jamesonii', '["gerbera daisy", "transvaal daisy", "germini", "gerber"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '[]'),
        ('freesia', 'Freesia', '["freesias"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["scent"]'),
        ('nerine', 'Nerine', '["guernsey lily", "nerines"]', '[1, 9, 10, 11, 12]', '["poison", "pets"]'),
        ('amaryllis', 'Hippeastrum', '["hippeastrum", "belladonna"]', '[1, 2, 3, 4, 10, 11, 12]', '["sap", "poison", "pets"]'),
        ('calla', 'Zantedeschia', '["calla lily", "arum lily", "arum", "zantedeschia", "callas"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["sap", "poison", "pets"]'),
        ('protea', 'Protea', '["king protea", "sugarbush"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '[]'),
        ('pincushion', 'Leucospermum', '["leucospermum", "nodding pincushion"]', '[1, 2, 3, 4, 5, 8, 9, 10, 11, 12]', '[]'),
        ('berzelia', 'Berzelia', '["button bush"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '[]'),
        ('hypericum', 'Hypericum androsaemum', '["st john''s wort", "hypericum berry", "tutsan", "hypericum"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["light", "pets"]'),
        ('rosehip', 'Rosa', '["rose hip", "rosehips", "hips"]', '[8, 9, 10, 11, 12]', '["thorns"]'),
        ('snowberry', 'Symphoricarpos', '["symphoricarpos"]', '[8, 9, 10, 11, 12]', '["poison", "invasive"]'),
        ('love-in-a-puff', 'Cardiospermum halicacabum', '["love-in-a-puff", "balloon vine", "love in a puff"]', '[7, 8, 9, 10]', '["invasive"]'),
        ('bupleurum', 'Bupleurum rotundifolium', '["hare''s ear", "thorow-wax", "thoroughwax"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '[]'),
        ('dill', 'Anethum graveolens', '["dill"]', '[6, 7, 8, 9]', '["light"]'),
        ('panic-grass', 'Panicum', '["fountain grass", "panicum", "switch grass"]', '[6, 7, 8, 9, 10]', '[]'),
        ('bracken', 'Pteridium aquilinum', '["bracken fern", "brake"]', '[6, 7, 8, 9, 10, 11]', '["poison"]'),
        ('hosta', 'Hosta', '["plantain lily"]', '[5, 6, 7, 8, 9]', '["pets"]'),
        ('olive', 'Olea europaea', '["olive", "olive leaf"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '[]'),
        ('hornbeam-branch', 'Carpinus betulus', '["hornbeam"]', '[5, 6, 7, 8, 9, 10]', '[]'),
        ('magnolia-branch', 'Magnolia', '["magnolia", "tulip tree magnolia"]', '[2, 3, 4]', '[]'),
        ('rosemary', 'Salvia rosmarinus', '["rosemary sprig"]', '[1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]', '["scent"]'),
        ('mint', 'Mentha', '["apple mint"]', '[5, 6, 7, 8, 9, 10]', '["scent", "pets"]'),
        ('clematis', 'Clematis', '["old man''s beard", "traveller''s joy", "virgin''s bower"]', '[5, 6, 7, 8, 9]', '["sap", "poison", "pets"]')
)
UPDATE variety SET
    botanical = known.botanical,
    names = known.names,
    season = known.season,
    hazards = (
        SELECT json_group_array(value) FROM (
            SELECT value FROM json_each(known.hazards)
            UNION
            SELECT value FROM json_each(variety.hazards) WHERE value = 'thorns' OR known.hazards = '[]'
        )
    )
FROM known WHERE known.key = variety.key;

ALTER TABLE variety DROP COLUMN toxic;
ALTER TABLE variety DROP COLUMN thorny;
