"""Where references are not looked up again after a change, nothing that was changed could break them."""

from __future__ import annotations

from typing import Any

import pytest

from levelrun.core.boxes.edits import LINKS
from levelrun.core.errors import EditError
from levelrun.core.job import Box, Panel
from levelrun.samples import sample
from tests.conftest import edited

DEMO = sample("quince-hollow")
BAD: dict[str, Any] = {"name": "Panel H", "structure": "nowhere", "room": "nowhere", "side": 39}


@pytest.mark.parametrize("key", sorted(LINKS - {"id"}))
def test_a_link_that_leads_nowhere_is_refused(key: str) -> None:
    box = next(item for item in DEMO.boxes if item.side is not None)
    with pytest.raises(EditError):
        edited(DEMO, {"op": "set", "kind": "box", "id": box.id, "set": {key: BAD[key]}})


@pytest.mark.parametrize("model", [Box, Panel])
def test_every_field_that_names_another_part_is_a_link(model: type[Box] | type[Panel]) -> None:
    """What names a part has the pattern of an id, alone or beside null."""
    shown = model.model_json_schema()["properties"]
    pattern = shown["structure"]["pattern"]
    named = {
        name
        for name, item in shown.items()
        if pattern in {one.get("pattern") for one in (item, *item.get("anyOf", ()))}
    }
    assert {"id", "structure", "room"} <= named <= LINKS
