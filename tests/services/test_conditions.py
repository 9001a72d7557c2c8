"""What an event's brief says of when its pieces stand finished, are loaded and arrive."""

from datetime import datetime

from jolly_trellis.services.conditions import waits_in
from jolly_trellis.store.plan import Brief


def test_a_drive_that_nobody_stated_is_no_drive_of_no_time() -> None:
    arrives = datetime.fromisoformat("2027-05-15T12:00+00:00")
    told = Brief(name="Supper", travel_h=1.5)
    assert [each and each.isoformat()[:16] for each in waits_in(told, arrives)] == [
        "2027-05-14T19:00",
        "2027-05-15T10:30",
    ]
    assert waits_in(Brief(name="Supper"), arrives) == (None, None)
    assert waits_in(told, None) == (None, None)
    next_door = waits_in(Brief(name="Supper", travel_h=0.0), arrives)[1]
    assert next_door == arrives
