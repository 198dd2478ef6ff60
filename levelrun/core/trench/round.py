"""The shortest line from one end of a trench to the other that goes round every building between them.

Over the visibility graph of the corners of the buildings, drawn two feet off their walls (Lozano-Perez and Wesley,
1979), by Dijkstra's algorithm as rustworkx has it.
"""

from __future__ import annotations

import math

import rustworkx as rx
from shapely import LineString, unary_union
from shapely.geometry import Polygon

from levelrun.core.job import Trench
from levelrun.core.site.geometry import Point
from levelrun.core.trench.yard import Yard

OFF_IN = 24.0


def round_buildings(yard: Yard, trench: Trench) -> list[Point] | None:
    """The corners of the shortest line, ends included; None where there is none, or where none is shorter than what
    may go under."""
    start, end = trench.points[0], trench.points[-1]
    walls = unary_union([item.shape for item in yard.buildings]).buffer(-6)
    wide = unary_union([item.shape.buffer(OFF_IN, join_style="mitre") for item in yard.buildings])
    outlines = [wide] if isinstance(wide, Polygon) else list(getattr(wide, "geoms", []))
    corners = [
        (round(x * 16) / 16, round(y * 16) / 16) for shape in outlines for x, y in list(shape.exterior.coords)[:-1]
    ]
    places = [start, end, *corners]
    graph = rx.PyGraph()
    graph.add_nodes_from(places)
    for i, a in enumerate(places):
        for j in range(i + 1, len(places)):
            if not LineString((a, places[j])).intersects(walls):
                graph.add_edge(i, j, math.dist(a, places[j]))
    found = rx.dijkstra_shortest_paths(graph, 0, target=1, weight_fn=float)
    return [places[index] for index in found[1]] if 1 in found else None
