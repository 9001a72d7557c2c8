"""What may be missing of a piece: each fact with its field in the plan, or in the event's brief."""

from jolly_trellis.core.missing import fact

VESSEL_WEIGHT = fact("vessel-weight", "vessel.mass_kg", "the weight of the empty vessel")
URN_WEIGHT = fact("urn-weight", "insert.outer.mass_kg", "the weight of the urn")
SUPPORT_WEIGHT = fact("support-weight", "support.mass_kg", "the weight of the support")
BOWL_FOOT = fact("bowl-foot", "vessel.foot_width_m", "the width of the bowl's foot")
VESSEL_FOOT = fact("vessel-foot", "vessel.foot_width_m", "the width of the vessel's foot")
STANDING_FOOT = fact("standing-foot", "vessel.foot_width_m", "the width of the foot it stands on")
SUPPORT_FOOT = fact("support-foot", "support.foot_width_m", "the width of the support's foot")
URN_FOOT = fact("urn-foot", "insert.outer.foot_width_m", "the width of the urn's foot")
COMPANION_WEIGHT = fact("companion-weight", "companions.{}.vessel.mass_kg", "the weight of {name}, empty")
COMPANION_FOOT = fact("companion-foot", "companions.{}.vessel.foot_width_m", "the width of the foot of {name}")
RECIPE = fact("recipe", "recipe", "the recipe (add stems)")
BARE_TABLE = fact("bare-table", "setting.free_table_m", "how much bare table there is round the foot")
LOOKED_FROM = fact("looked-from", "setting.people", "where people look from")
SITTING = fact("sitting", "setting.people", "where people sit")
TRAVELS = fact("travels", "transport", "how the piece travels (boxed, bare, or made on site)")
CARRIED_BY = fact("carried-by", "transport", "how the piece travels, and who carries it")
BOX_WALL = fact("box-wall", "transport.box_wall_m", "how high the walls of its box are")
CARRIED = fact("carried", "carried_h", "how many hours it is carried out of water")
SPILL_HOOK = fact("spill-hook", "spill.hook_n", "what the spill's hook is rated to carry")
SPILL_HOOK_BY = fact("spill-hook-by", "spill.hook_stated_by", "who stated the hook's rating")
CAPS_TURNED = fact(
    "caps-turned-down", "{}.{}.tube.cap_seals", "whether the caps of the {variety}'s tubes seal when turned down"
)
CAPS_LEANED = fact(
    "caps-leaned-over", "{}.{}.tube.cap_seals", "whether the caps of the {variety}'s tubes seal when leaned over"
)

ROOM_AIR = fact("room-air", "air.temperature_c", "the room's temperature and humidity", of="event")
CARRIED_AIR = fact("carried-air", "air.temperature_c", "the temperature and humidity where it is carried", of="event")
FILLED_AT = fact("filled-at", "filled_at", "when the vessel is filled", of="event")
ENDS_AT = fact("ends-at", "ends_at", "when the event ends", of="event")
LOADED_AT = fact("loaded-at", "travel_h", "when it is loaded", of="event")
WORKSHOP_AIR = fact("workshop-air", "workshop.temperature_c", "the workshop's temperature and humidity", of="event")
