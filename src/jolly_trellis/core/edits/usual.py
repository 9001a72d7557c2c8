"""Measures that an edit takes where nobody has said any: common practice, no source."""

HANG_OVER_M = 0.9  # a new hang point over what it holds
BESIDE_M = 0.5  # a new hang point from the only one there is
LEVEL_M = 2.6  # work that nothing holds yet, over the floor
BOND_BESIDE_M = 0.15  # the point of a second bond behind the others
TIE_OVER_M = 0.03  # the middle of a rail over what is tied to it
LEAST_HIGH_M = 0.1
PATH_SLACK = 1.05  # a run over the way between its places
COMPANION_WIDE = 1.6  # flowers beside it over the mouth of their vessel
COMPANION_HIGH = 0.6  # the same over its rim, of their width
COMPANION_WATER = 0.8  # of its depth
FROG_ROOM_M = 0.002  # a frog is smaller than the floor it lies on
WEIGHT_BEHIND_M = 0.04  # the middle of a counterweight behind the foot
URN_FROM_M = 0.25  # what is deeper is an urn
OVER_URN_M = 0.2  # flowers over the rim of the urn that their vessel is set into
INSERT_DROP_M = 0.01  # its rim under the urn's
PLACE_APART_M = 0.5  # a new place of an armature from the last one
