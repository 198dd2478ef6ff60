"""Boxes and panels by their names in a sentence of the record."""

from __future__ import annotations

from levelrun.core.job import Box, Panel
from levelrun.core.site.scene import SceneReader


def nodes_named(reader: SceneReader) -> dict[str, Box | Panel]:
    """Boxes and panels by name; a panel also without its word panel."""
    return {**reader.panels(), **{node.name: node for node in reader.scene.job.nodes}}


def node_of(reader: SceneReader) -> Box | Panel:
    """The box or panel that stands here by its name. Raises TextError."""
    nodes = nodes_named(reader)
    reader.expect([node.name for node in reader.scene.job.nodes])
    word = reader.phrase(nodes)
    if word is None:
        raise reader.fail("a box or panel by its name")
    return nodes[word]
