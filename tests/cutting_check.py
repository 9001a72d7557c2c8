"""A cut plan checked by geometry alone, written apart from the planner: inside, apart by a cut, guillotine."""

from collections.abc import Iterable

from jolly_trellis.core.event.cutting.cutting import Cutting, Item, Placed, Stock

Box = tuple[int, int, int, int]


def problems_of(cutting: Cutting, items: tuple[Item, ...], sheets: tuple[Stock, ...], kerf: int) -> list[str]:
    """Everything that is wrong with a plan; nothing where it can be cut as it stands."""
    known, stock = {item.key: item for item in items}, {sheet.key: sheet for sheet in sheets}
    found: list[str] = []
    counts: dict[int, int] = {item.key: 0 for item in items}
    copies: set[tuple[int, int]] = set()
    for used in cutting.used:
        sheet = stock[used.sheet]
        if (used.sheet, used.nth) in copies or not used.nth < sheet.count:
            found.append(f"stock {used.sheet} number {used.nth} is used twice or is not there")
        copies.add((used.sheet, used.nth))
        for piece in used.placed:
            counts[piece.item] += 1
            found += _sized(piece, known[piece.item], sheet, used.rows)
        boxes = [(each.x, each.y, each.across, each.along) for each in used.placed]
        found += _apart(boxes, kerf)
        if not guillotine(boxes, kerf):
            found.append(f"stock {used.sheet} cannot be cut from edge to edge")
    left = dict(cutting.unplaced)
    for item in items:
        if counts[item.key] + left.get(item.key, 0) != item.count:
            found.append(f"item {item.key}: {counts[item.key]} cut and {left.get(item.key, 0)} left of {item.count}")
    return found


def _sized(piece: Placed, item: Item, sheet: Stock, rows: int) -> list[str]:
    least = item.turned if piece.turned and item.turned else (item.across, item.along)
    room = max(least[0], (item.room_turned if piece.turned else item.room) or 0)
    fits = least[0] <= piece.across <= room + item.spare and piece.along == least[1]
    found = [] if fits else [f"item {item.key} has another size"]
    inside = piece.x >= 0 and piece.y >= 0 and piece.x + piece.across <= sheet.across
    if not (inside and piece.y + piece.along <= min(sheet.along, rows)):
        found.append(f"item {item.key} lies outside the stock, or beyond the rows said to be used")
    return found


def _apart(boxes: list[Box], kerf: int) -> list[str]:
    found = []
    for index, (x, y, wide, long) in enumerate(boxes):
        for u, v, other_wide, other_long in boxes[index + 1 :]:
            beside = x + wide + kerf <= u or u + other_wide + kerf <= x
            behind = y + long + kerf <= v or v + other_long + kerf <= y
            if not (beside or behind):
                found.append("two pieces lie on one another, or nearer than a cut")
    return found


def guillotine(boxes: Iterable[Box], kerf: int) -> bool:
    """Whether edge-to-edge cuts alone part all boxes: some straight line divides them, and so on in each part."""
    left = list(boxes)
    if len(left) <= 1:
        return True
    for axis in (1, 0):
        for line in sorted({box[axis] + box[axis + 2] for box in left}):
            near = [box for box in left if box[axis] + box[axis + 2] <= line]
            far = [box for box in left if box[axis] >= line + kerf]
            if near and far and len(near) + len(far) == len(left):
                return guillotine(near, kerf) and guillotine(far, kerf)
    return False
