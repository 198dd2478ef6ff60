"""Jobs as they are told, from the first line to the last, with the numbers worked out by hand."""

from __future__ import annotations

from fastapi.testclient import TestClient

from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.exchange.text import read_text

BUNGALOW = """old bungalow, panel H 100a 16 spaces full except 13 and 15
tie into the hall light on 6, 14-2 12' attic, fish down 7' to a switch in the closet, then up 7' to a closet light
12-2 fished up 7', 30' attic, fished down 6' to a bedroom outlet on 13
bathroom circuit 20a on 15: 28' crawl, up 4' to a gfci outlet by the sink
"""
PUMP_HOUSE = """1940s farmhouse, existing panel H 100a 20 spaces taken 1-14
pump house 8x10, 90' north of the house, door on the south wall
pump house sub panel P 60a 8 spaces
from H 12' basement, out through the wall, down 3', 90' trench 24" deep in 1-1/4 pvc, up 4' to panel P
well pump 1 hp 240v on the east wall
light on a switch by the door
gfci outlet on the west wall at 48"
two ground rods at the pump house
"""
SHOP = """shop 24x32x10
door on the north wall 3' from the east corner
garage door 10' wide on the south wall
panel S 100a 20 spaces on the north wall by the door
2 outlets on each wall
4 shop lights down the middle on a switch by the door
welder outlet on the south wall on its own circuit
air compressor 5hp 240v in the southwest corner
everything in emt
"""


def hops(client: TestClient, text: str) -> dict[str, tuple[str, float | None, float | None]]:
    """For each hop by its box: its wires, how far, and the cut, in feet."""
    found = client.post("/api/plan", json={"text": text}).json()
    return {
        hop["to"]: (hop["wires"], hop["length_ft"] and round(hop["length_ft"], 1), hop["cut_ft"])
        for circuit in found["circuits"]
        for hop in circuit["hops"]
    }


def codes(job: Job) -> set[str]:
    return {item.code for item in plan(job).findings if item.severity == "stop"}


def test_a_bungalow(client: TestClient) -> None:
    """12 + 7 ft and 5 % of it, 8 in at each of two boxes and a loop of 6: 21.8, cut 22. 7 ft: 9.2, cut 10.
    7 + 30 + 6 ft, 42 in at the panel: 49.8, cut 50. 28 + 4 ft: 38.3, cut 39."""
    job = read_text(BUNGALOW)
    assert hops(client, BUNGALOW) == {
        "L-1": ("14-2", None, None), "S-1": ("14-2", 19, 22), "L-2": ("14-2", 7, 10), "R-1": ("12-2", 43, 50),
        "R-2": ("12-2", 32, 39),
    }  # fmt: skip
    old, *_ = job.circuits
    assert [(leg.size, leg.fished) for way in job.ways for leg in way.legs if way.id == old.chain[1].path[0]] == [
        ("14-2", False), ("14-2", True),
    ]  # fmt: skip
    assert [(c.space, c.breaker_a, c.protection) for c in job.circuits] == [
        (6, 15, "plain"), (13, 20, "afci"), (15, 20, "plain"),
    ]  # fmt: skip
    assert codes(job) == {"afci-missing"}  # what is drawn out in a dwelling wants it (210.12)


def test_the_switch_behind_a_light_works_what_hangs_behind_it(client: TestClient) -> None:
    """Alone it works the light: hot there and back, and a neutral (404.2(C)); with a light behind it it is fed."""
    head = "panel H 100a 16 spaces taken 1-12\nfrom the hall light on 6, 12' attic in 14-2 to a switch in the closet"
    assert hops(client, head)["S-1"][0] == "14-3"
    both = hops(client, f"{head}, then up 7' to a closet light")
    assert (both["S-1"][0], both["L-2"][0]) == ("14-2", "14-2")


def test_a_pump_house(client: TestClient) -> None:
    """12 ft of basement, 8 in of wall, 3 down, 90 of trench, 4 up: 109.7, 5 % of it, and what two panels take."""
    job = read_text(PUMP_HOUSE)
    house, pump = job.structures
    assert (house.existing, house.kind, pump.name) == (True, "house", "Pump house")
    panel = next(panel for panel in job.panels if panel.name == "P")
    assert (panel.structure, panel.main_a) == (pump.id, 60)
    (feeder,) = job.circuits
    assert (feeder.breaker_a, feeder.wire_size, feeder.neutral) == (60, "6", True)
    assert hops(client, PUMP_HOUSE)["P"] == ("6-3", 109.7, 123)
    assert len([item for item in job.electrodes if item.structure == pump.id]) == 2
    assert codes(job) == set()


def test_a_shop() -> None:
    job = read_text(SHOP)
    (room,) = job.rooms
    walls = {side: [box.at_in for box in job.boxes if box.side == side and box.serves == ""
                    and box.kind == "receptacle"] for side in range(4)}  # fmt: skip
    assert [len(places) for places in walls.values()].count(2) >= 2
    lights = [box for box in job.boxes if box.kind == "light"]
    assert len({box.x_in for box in lights}) == 1 and len(lights) == 4  # one line, the longer way
    assert job.structures[0].levels[0].height_in == 120 and room.use == "shop"
    (welder,) = job.circuits
    assert (welder.breaker_a, welder.method) == (50, "raceway")
    assert "box-in-opening" not in {item.code for item in plan(job).findings}
