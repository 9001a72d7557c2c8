"""What an event asks for out of its season: the date of the event against the months of ordinary supply."""

from collections.abc import Iterable, Iterator, Mapping

from jolly_trellis.core.event.job import Job
from jolly_trellis.core.event.needs.needed import StemNeed
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.quantities import Phrase, phrase, worded

MONTHS = (
    "January",
    "February",
    "March",
    "April",
    "May",
    "June",
    "July",
    "August",
    "September",
    "October",
    "November",
    "December",
)


def out_of_season(job: Job, stems: Iterable[StemNeed], varieties: Mapping[str, Variety]) -> Iterator[Phrase]:
    """Each variety that is rarely to be had in the month of the event, in words, by its name.

    Only what is fresh and has its months; what keeps is bought ahead. Source: months from memory, of the north.
    """
    at = job.filled_at or job.starts_at
    if at is None:
        return
    month = at.astimezone(job.zone).month
    keys = {each.variety for each in stems}
    asked = (varieties[key] for key in keys if key in varieties)
    for variety in sorted(asked, key=lambda each: each.name):
        if variety.season and month not in variety.season and variety.kind in ("fresh", "foraged", "own garden"):
            yield phrase(
                "{name}: rarely to be had in {month}; its months are {months}.",
                name=variety.name,
                month=MONTHS[month - 1],
                months=months_in_words(variety.season),
            )


def months_in_words(months: Iterable[int]) -> str:
    """Months in a row as from the first to the last, across the year's end too, others with commas.

    Args:
        months: 1 to 12.
    """
    there = set(months)
    if len(there) == len(MONTHS):
        return "all the year"
    starts = sorted(each for each in there if (each - 2) % 12 + 1 not in there)
    runs = []
    for start in starts:
        end = start
        while end % 12 + 1 in there:
            end = end % 12 + 1
        runs.append(
            MONTHS[start - 1]
            if start == end
            else worded("{first} to {last}", first=MONTHS[start - 1], last=MONTHS[end - 1])
        )
    return ", ".join(runs)
