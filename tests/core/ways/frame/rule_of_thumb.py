"""The length of cable between two boxes as it was told before ways were found, kept to compare with: common practice,
no source."""

from __future__ import annotations

from collections.abc import Sequence

from levelrun.core.boxes.facts import RoomContext, viewed
from levelrun.core.job import Job, job_book

OVER_HEADER_IN = 12.0


def by_rule_of_thumb(job: Job, contexts: Sequence[RoomContext]) -> dict[tuple[str, str], float]:
    """Inches of each hop: round the walls of a room at the hole line, over each header, or by a ceiling."""
    stands = {}
    for context in contexts:
        view = viewed(job_book(job), context)
        hole = context.habits.pole.hole_line_in
        doors = [
            (start + o.at_in, start + o.to_in, 2 * max(o.head_in + OVER_HEADER_IN - hole, 0.0))
            for face, start in zip(view.faces, view.starts, strict=True)
            for o in face.openings
            if o.sill_in < hole
        ]
        floor = context.level.floor_in
        for node in (*context.boxes, *context.panels):
            spot = view.spot(node)
            if spot is not None:
                stands[node.id] = (
                    context.room.id, spot, node.height_in, floor + context.level.height_in, view.around_in,
                    view.unrolled(node), doors, floor + hole,
                )  # fmt: skip
    found = {}
    for circuit in job.circuits:
        for hop in circuit.chain:
            a, b = stands.get(hop.after or circuit.panel), stands.get(hop.box)
            if a is None or b is None:
                continue
            climb = min(abs(a[2] - over) + abs(b[2] - over) for over in (a[3], b[3]))
            length = climb + abs(a[1][0] - b[1][0]) + abs(a[1][1] - b[1][1])
            if a[0] == b[0] and a[5] is not None and b[5] is not None:
                low, high = sorted((a[5], b[5]))
                inside = sum(d[2] for d in a[6] if low < (d[0] + d[1]) / 2 < high)
                outside = sum(d[2] for d in a[6] if not low < (d[0] + d[1]) / 2 < high)
                ways = (high - low + inside, a[4] - (high - low) + outside)
                length = min(length, abs(a[2] - a[7]) + abs(b[2] - b[7]) + min(ways))
            found[circuit.id, hop.box] = length
    return found
