"""Every constant of the method in one table, to be changed on purpose: `python -m tests.figures_table` writes it."""

import csv
import io
from pathlib import Path

from jolly_trellis.core.method import CONSTANTS

FILE = Path(__file__).parent / "figures.csv"
COLUMNS = ("key", "kind", "value", "sort", "spread", "cautious", "provenance", "source")


def rows() -> list[tuple[str, ...]]:
    """The constants as they are, by key."""
    return sorted(
        (
            each.key,
            each.kind,
            f"{each.built_in:.10g}",
            each.sort,
            f"{each.spread:g}",
            each.cautious,
            each.provenance.kind,
            each.provenance.source,
        )
        for each in CONSTANTS.values()
    )


def kept() -> list[tuple[str, ...]]:
    """The table as it was last written."""
    with FILE.open(encoding="utf-8", newline="") as file:
        return [tuple(row) for row in list(csv.reader(file))[1:]]


def write() -> None:
    """Write the table anew."""
    text = io.StringIO()
    csv.writer(text, lineterminator="\n").writerows([COLUMNS, *rows()])
    FILE.write_text(text.getvalue(), encoding="utf-8")


if __name__ == "__main__":
    write()
