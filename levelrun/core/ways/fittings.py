"""What screws on where a leg ends: connectors, bushings, couplings, bodies."""

from __future__ import annotations

from levelrun.core.ways.facts import WayView


def fittings(view: WayView, index: int) -> list[str]:
    """Fittings at both ends of a leg, in words. Wet places take raintight ones (314.15)."""
    found = [_at(view, index, view.joint_before(index), start=True), _at(view, index, view.joint_after(index))]
    if view.way.legs[index].sleeve:
        found.append("bushing at both ends of the sleeve")
    if view.way.legs[index].expansion:
        found.append("expansion fitting")
    return list(dict.fromkeys(word for word in found if word))


def _at(view: WayView, index: int, joint: str, start: bool = False) -> str:
    leg, method = view.way.legs[index], view.methods[index]
    rain = "raintight " if view.facts[index].moisture == "wet" and method.family == "steel" else ""
    if joint in ("box", "panel"):
        if leg.sleeve:
            return ""
        if method.kind == "raceway":
            return f"{rain}{method.name} connector and bushing at the {joint}"
        if method.kind == "span":
            return "weatherhead, drip loop and listed splices"
        return f"cable connector at the {joint}, one cable a clamp unless listed for two"
    if start:
        return ""
    if joint == "lb":
        return f"{rain}LB, lid out where it can be reached"
    if joint == "body":
        return f"{rain}conduit body"
    if joint == "coupling" or (view.piped(index) and index + 1 < len(view.way.legs)):
        after = view.methods[index + 1] if index + 1 < len(view.way.legs) else method
        bend = view.placed[index + 1].bend_deg if index + 1 < len(view.placed) else 0.0
        if after.key != method.key and after.kind == "raceway":
            return f"{method.name} to {after.name} fitting"
        return f"{bend:g}° sweep or bend" if bend else "coupling"
    return ""
