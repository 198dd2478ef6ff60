"""A short name of an edit, for undo."""

from __future__ import annotations

from collections.abc import Sequence

from levelrun.core.edits import models as m


def describe(edits: Sequence[m.Edit]) -> str:
    """A short name of an edit for undo, such as "leg 5: depth 18″"."""
    edit = edits[0]
    match edit:
        case m.SetJob():
            text = f"job {', '.join(edit.set)}"
        case m.Add():
            text = f"add {edit.kind} {edit.item.get('name', '')}"
        case m.Set():
            text = f"{edit.kind} {', '.join(key.removesuffix('_in').replace('_', ' ') for key in edit.set)}"
        case m.Drop():
            text = f"remove {edit.kind}"
        case m.AddLeg():
            text = "add leg"
        case m.SetLeg():
            what = ", ".join(key.removesuffix("_in").replace("_", " ") for key in edit.set)
            text = f"leg {edit.leg + 1}: {what}"
        case m.DropLeg():
            text = f"remove leg {edit.leg + 1}"
        case m.PutBox():
            text = f"box after leg {edit.leg + 1}"
        case m.EndLeg():
            text = f"leg {edit.leg + 1} ends at {edit.to or 'nothing'}"
        case m.Walk():
            text = f"walk {edit.text.strip().splitlines()[0][:40]}" if edit.text.strip() else "walk"
        case m.Say():
            text = edit.text.strip().splitlines()[0] if edit.text.strip() else "nothing"
        case m.MoveWall():
            text = f"move a wall {'out' if edit.by_in > 0 else 'in'}"
        case m.SetSide():
            text = f"wall {', '.join(key.removesuffix('_in').replace('_', ' ') for key in edit.set)}"
        case m.FillRoom():
            text = "fill the room with boxes"
        case m.ClearRoom():
            text = "remove room"
        case m.Chain():
            text = f"chain {len(edit.boxes)} box{'es' * (len(edit.boxes) > 1)}"
        case m.Unchain():
            text = f"take {len(edit.boxes)} box{'es' * (len(edit.boxes) > 1)} off"
        case m.Put():
            text = f"put breaker on {edit.space}" if edit.space else "take breaker out"
    more = f" and {len(edits) - 1} more" if len(edits) > 1 else ""
    return (text + more)[:80]
