"""A job of format 2 as format 3: what a run said of its circuit goes to the circuit, what is left of it is a way.

In format 2 a run had breaker, wire and load of its own, and was tied to the circuit of the same panel and label. Now
the hops of that circuit name the way; where there was none, the run's own words make one. Everything here works on
plain data as it was stored, and gives the same answer each time, so that a history can be brought up step by step.
"""

from __future__ import annotations

import re
from typing import Any

Raw = dict[str, Any]
_LABEL = re.compile(r"(\d+)(?:/(\d+))?([ab]?)")
CABLES = ("NM-B", "UF-B", "MC", "AC", "SER")


def woven(panels: list[Raw], runs: list[Raw], circuits: list[Raw]) -> tuple[list[Raw], list[Raw]]:
    """The ways and the circuits of format 3, from the panels, runs and circuits of format 2."""
    found = {circuit["id"]: _with_end(circuit) for circuit in circuits}
    places = {panel["id"] for panel in panels}
    waiting = list(runs)
    while waiting:
        ready = [run for run in waiting if run["start"] in places or _reached(found, run["start"])]
        for run in ready or waiting[:1]:
            _carry(found, run, places, panels)
            waiting.remove(run)
    ways = [{key: run[key] for key in ("id", "name", "start", "legs")} for run in runs]
    return ways, list(found.values())


def _with_end(circuit: Raw) -> Raw:
    """A circuit of its own to change; a feeder's chain ends at its panel."""
    chain = [dict(hop) for hop in circuit.get("chain", ())]
    if circuit.get("feeds") and circuit["feeds"] not in {hop["box"] for hop in chain}:
        chain.append({"box": circuit["feeds"], "after": chain[-1]["box"] if chain else None})
    return {**circuit, "chain": chain}


def _reached(found: dict[str, Raw], node: str) -> bool:
    return any(hop["box"] == node for circuit in found.values() for hop in circuit["chain"])


def _carry(found: dict[str, Raw], run: Raw, places: set[str], panels: list[Raw]) -> None:
    """A run's circuit found or made, and its hops laid into the way that the run becomes."""
    nodes = [leg["end"]["node"] for leg in run.get("legs", ()) if leg.get("end", {}).get("node")]
    circuit = _circuit_of(found, run, places)
    if circuit is None:
        circuit = _made(found, run, nodes, places, panels)
        if circuit is None:
            return
        found[circuit["id"]] = circuit
        own: Raw = {}
    else:
        own = {} if run["wire_size"] == circuit["wire_size"] else {"wire_size": run["wire_size"]}
        if run.get("gfci") and circuit.get("protection", "plain") in ("plain", "afci"):
            circuit["protection"] = "dual" if circuit.get("protection") == "afci" else "gfci"
        if run.get("nameplate"):
            circuit["nameplate"] = True
    if run.get("load_a"):
        circuit["load_a"] = max(circuit.get("load_a") or 0.0, run["load_a"])
    usual = 2 if circuit["volts"] == 120 or not circuit.get("neutral", True) else 3
    if run.get("conductors", 2) > usual:
        own["conductors"] = run["conductors"]
    _lay(circuit, run, nodes, own, places)


def _circuit_of(found: dict[str, Raw], run: Raw, places: set[str]) -> Raw | None:
    """The circuit of the same label at the panel where the run starts, or the one that its first box is on."""
    for circuit in found.values():
        if run["start"] in places:
            if circuit["panel"] == run["start"] and run.get("circuit") and _label(circuit) == run["circuit"]:
                return circuit
        elif any(hop["box"] == run["start"] for hop in circuit["chain"]):
            text = run.get("circuit", "")
            if not text or text == _label(circuit):
                return circuit
    return None


def _label(circuit: Raw) -> str:
    space, half = circuit.get("space"), circuit.get("half") or ""
    if space is None:
        return ""
    spaces = (space, space + 2) if circuit.get("poles") == 2 else (space,)
    return "/".join(f"{item}{half}" for item in spaces)


def _made(found: dict[str, Raw], run: Raw, nodes: list[str], places: set[str], panels: list[Raw]) -> Raw | None:
    """The circuit that a run described. Its panel is the one where it starts; of a run that no panel feeds, the first
    there is; None where there is no panel at all."""
    panel = run["start"] if run["start"] in places else next((item["id"] for item in panels), None)
    if panel is None:
        return None
    first = run["legs"][0]["method"] if run.get("legs") else "NM-B"
    ident, number = f"c-{run['id']}"[:40], 1
    while ident in found:
        ident, number = f"c-{run['id'][:30]}-{number}", number + 1
    poles = 1 if run["volts"] == 120 else 2
    feeds = nodes[-1] if nodes and nodes[-1] in places and nodes[-1] != panel else None
    return {
        "id": ident,
        "name": run["name"],
        "panel": panel,
        **_space(found, panels, panel, run.get("circuit", ""), poles),
        "poles": poles,
        "volts": run["volts"],
        "breaker_a": run["breaker_a"],
        "protection": "gfci" if run.get("gfci") else "plain",
        "neutral": bool(run.get("neutral", True)),
        "wire_size": run["wire_size"],
        "material": run.get("material", "cu"),
        "insulation": run.get("insulation", "THWN-2"),
        "method": first if first in CABLES else "raceway",
        "nameplate": bool(run.get("nameplate", False)),
        "feeds": feeds,
        "chain": [],
    }


def _space(found: dict[str, Raw], panels: list[Raw], panel: str, text: str, poles: int) -> Raw:
    """The space that a run named, where it is one of its panel and nothing stands there."""
    match = _LABEL.fullmatch(text)
    spaces = next((item.get("spaces", 20) for item in panels if item["id"] == panel), 0)
    if match is None:
        return {"space": None, "half": ""}
    first = int(match[1])
    wanted = {first, first + 2} if poles == 2 else {first}
    taken = {
        space
        for circuit in found.values()
        if circuit["panel"] == panel and circuit.get("space") and circuit.get("half", "") in ("", match[3])
        for space in ((circuit["space"], circuit["space"] + 2) if circuit.get("poles") == 2 else (circuit["space"],))
    }
    fits = first >= 1 and max(wanted) <= spaces and not wanted & taken
    return {"space": first if fits else None, "half": match[3] if fits else ""}


def _lay(circuit: Raw, run: Raw, nodes: list[str], own: Raw, places: set[str]) -> None:
    """The hops between the boxes of a run take its way. A box of the run that was not in the chain comes into it."""
    hops: dict[str, Raw] = {hop["box"]: hop for hop in circuit["chain"]}
    at = None if run["start"] == circuit["panel"] or run["start"] not in hops else run["start"]
    added: dict[str | None, str | None] = {}
    for node in nodes:
        if node == at or (node in places and node != circuit.get("feeds")):
            continue
        hop = hops.get(node)
        if hop is None:
            hop = {"box": node, "after": at}
            hops[node] = hop
            added[node] = at
        elif hop.get("after") != at:
            base = at
            while base in added:
                base = added[base]
            if hop.get("after") == base and at in added:
                hop["after"] = at
        if hop.get("after") == at and not hop.get("path"):
            hop |= {"path": [run["id"]], "length_in": None, **own}
        at = node
    order: list[Raw] = []
    seen: set[str] = set()

    def place(hop: Raw) -> None:
        """A box after the one that it hangs on."""
        if hop["box"] in seen:
            return
        seen.add(hop["box"])
        before = hop.get("after")
        if before in added and before in hops:
            place(hops[before])
        order.append(hop)

    for hop in [*circuit["chain"], *hops.values()]:
        place(hops[hop["box"]])
    circuit["chain"] = order


def as_three(raw: Raw) -> Raw:
    """A whole job of format 2 as format 3. What is not made as format 2 says is left for the model to refuse."""
    lists = {key: raw.get(key, []) for key in ("panels", "runs", "circuits")}
    kept = {key: value for key, value in raw.items() if key != "runs"}
    try:
        ways, circuits = woven(lists["panels"], lists["runs"], lists["circuits"])
    except (KeyError, TypeError, AttributeError, IndexError):
        return {**kept, "format_version": 3, "ways": lists["runs"]}
    return {**kept, "format_version": 3, "ways": ways, "circuits": circuits}
