"""What may be missing of an event: each fact with its field in the brief, the costs, the hires or the stores."""

from jolly_trellis.core.missing import fact

FILLED = fact("water-goes-in", "filled_at", "when the water goes in", of="event")
DRIVE = fact("drive", "travel_h", "how long the drive takes", of="event")
ACCESS = fact("access", "access_at", "when the place opens to the crew", of="event")
CREW = fact("crew", "crew", "who works (one pair of hands is taken)", of="event")
PLACE_AIR = fact("place-air", "air.temperature_c", "the air of the place", of="event")
WORKSHOP_AIR = fact("air-of-workshop", "workshop.temperature_c", "the air of the workshop", of="event")

PRICE = fact("price", "{}.{}.price", "the price of {name}", of="stores")
PRICES_IN = fact("prices-in", "costing.currency", "the prices of the stores in {asked}: they are in {kept}", of="cost")
HIRE_PRICE = fact("hire-price", "hires.{}.each", "what {lender} asks for {name}", of="hires")
HOUR_PRICE = fact("hour-price", "costing.rate_per_h", "what an hour of work costs", of="cost")
NOT_WORKED_OUT = fact("not-worked-out", "parts", "how “{name}” is made: it could not be worked out", of="line-up")
