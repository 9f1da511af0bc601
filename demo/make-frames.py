#!/usr/bin/env python3
"""Draws the frame photos of Heather Ridge, frame-1.svg to frame-9.svg beside this file: comb, cell by cell, as it
might look from the outside of a box to its middle and out again. Made from numbers alone, the same each time."""
import math
import os

WIDTH, HEIGHT = 320, 288
RADIUS = 10.0
COLOURS = {
    "honey": "#E0A63A", "capped honey": "#F0CE86", "brood": "#C08A4E", "pollen": "#C9622F", "green pollen": "#8C8A3C",
    "empty": "#6B4A2B", "larva": "#EFE3C8",
}


def noise(*numbers):
    """A number from 0 to 1 that depends on these alone."""
    mixed = 2166136261
    for number in numbers:
        mixed = ((mixed ^ (int(number) & 0xFFFF)) * 16777619) & 0xFFFFFFFF
        mixed ^= mixed >> 13
    return (mixed % 9973) / 9973


def what_is_in(frame, column, row, x, y):
    """From the middle outwards: brood, a ring of pollen, honey; the further out a frame hangs, the more honey."""
    middle = 1.0 - abs(frame - 5) / 4.0  # 1: the middle of the box
    away = math.hypot((x - WIDTH / 2) / (WIDTH * 0.62), (y - HEIGHT * 0.62) / (HEIGHT * 0.62))
    away += 0.10 * (noise(frame, column, row) - 0.5)
    brood = 0.62 * middle
    if away < brood:
        chance = noise(column, row, frame, 3)
        return "larva" if chance < 0.16 else "empty" if chance < 0.24 else "brood"
    if away < brood + 0.10 + 0.05 * middle and middle > 0.1:
        chance = noise(row, column, frame, 5)
        return "pollen" if chance < 0.5 else "green pollen" if chance < 0.68 else "empty"
    if y > HEIGHT * 0.80 and noise(row, frame, column, 7) < 0.55:
        return "empty"
    return "capped honey" if y < HEIGHT * (0.50 - 0.2 * middle) or noise(column, frame, row) < 0.3 else "honey"


def drawn(frame):
    cells = {name: [] for name in COLOURS}
    across, down = RADIUS * math.sqrt(3.0), RADIUS * 1.5
    left, top, right, bottom = 16, 34, WIDTH - 16, HEIGHT - 14
    row, y = 0, top + RADIUS + 2
    while y < bottom - RADIUS:
        column, x = 0, left + across / 2 + (across / 2 if row % 2 else 0.0) + 1
        while x < right - across / 2:
            cells[what_is_in(frame, column, row, x, y)].append((x, y))
            column, x = column + 1, x + across
        row, y = row + 1, y + down
    r = RADIUS - 1.2
    half, quarter = round(r * math.sqrt(3.0) / 2, 1), round(r / 2, 1)
    paths = ""
    for name, places in cells.items():
        if places:
            d = "".join(f"M{x:.0f} {y - r:.1f}l{half} {quarter}v{r:.1f}l-{half} {quarter}-{half}-{quarter}v-{r:.1f}z"
                        for x, y in places)
            paths += f'<path fill="{COLOURS[name]}" d="{d}"/>\n'
    return f"""<svg xmlns="http://www.w3.org/2000/svg" width="{WIDTH}" height="{HEIGHT}">
<title>Frame {frame}</title>
<path fill="#8A6A44" d="M0 0h{WIDTH}v{HEIGHT}H0z"/>
<path fill="#C7A77B" d="M0 8h{WIDTH}v22H0zM4 30h12v{HEIGHT - 34}H4zM{WIDTH - 16} 30h12v{HEIGHT - 34}h-12zM4 {HEIGHT - 16}h{WIDTH - 8}v12H4z"/>
<path fill="#4A331E" d="M16 30h{WIDTH - 32}v{HEIGHT - 46}H16z"/>
{paths}</svg>
"""


for number in range(1, 10):
    here = os.path.dirname(os.path.abspath(__file__))
    with open(os.path.join(here, f"frame-{number}.svg"), "w", encoding="utf-8") as out:
        out.write(drawn(number))
