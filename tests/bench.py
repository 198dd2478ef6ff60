"""Figures, not tests: how long an edit and a calculation take on a large house."""

from __future__ import annotations

import gc
import http.client
import io
import json
import random
import statistics
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

from PIL import Image
from playwright.sync_api import sync_playwright

from levelrun.api.looking import KEPT
from levelrun.api.photos import photo_rows
from levelrun.cli import GARBAGE
from levelrun.core.boxes.volume import Counted, box_volume
from levelrun.core.circuits.loads import all_loads
from levelrun.core.circuits.proposer import propose
from levelrun.core.codebook import load
from levelrun.core.job import Box, Job, Photo
from levelrun.core.others.kinds import others_of
from levelrun.core.others.weighed import weighed
from levelrun.core.pipe.facts import piped
from levelrun.core.pipe.layout import layout_of
from levelrun.core.pipe.planned import _plans, plan_pull
from levelrun.core.pipe.pulling import bands_of
from levelrun.core.plan import job_book, plan, plan_whole, way_contexts
from levelrun.core.roughin.waits import holds
from levelrun.core.testing.faults import faults_of
from levelrun.core.testing.planned import _steps
from levelrun.core.testing.reading import _solved, read
from levelrun.core.testing.where import Taken, suspects
from levelrun.core.trade.coils import Coil, planned
from levelrun.core.trade.conductors.sizing import Demand, choose
from levelrun.core.trade.cover import cover
from levelrun.core.trade.drop import drop
from levelrun.core.trade.methods.facts import facts_of
from levelrun.core.trade.methods.verdicts import judge
from levelrun.core.trade.pipe.fill import Wires, fill
from levelrun.core.trade.pipe.pull import PullWires, Section, pull
from levelrun.core.ways.facts import viewed
from levelrun.core.ways.forces import force_of
from levelrun.core.ways.frame.found import found_ways
from levelrun.core.ways.inside import _inside
from levelrun.core.ways.line import line_of
from levelrun.core.ways.ordering import distances, orders_of
from levelrun.core.ways.pulls import pulls_of
from levelrun.core.ways.walk import parse_walk
from levelrun.exchange.pictures import read_picture
from levelrun.samples import sample
from levelrun.store.pictures import Pictures
from tests.conftest import one_way
from tests.core.test_kept_plans import forget
from tests.e2e.conftest import CHROMIUM, FLAGS, Server
from tests.e2e.hands import settled
from tests.large import large_house


def measure(name: str, act: Callable[[], object], times: int) -> None:
    """Print median, 95th percentile and worst in milliseconds."""
    spent = []
    for _ in range(times):
        start = time.perf_counter()
        act()
        spent.append(1000 * (time.perf_counter() - start))
    most = statistics.quantiles(spent, n=20, method="inclusive")[-1]
    print(f"{name:<52} median {statistics.median(spent):8.3f}   p95 {most:8.3f}   worst {max(spent):8.3f} ms")


def yardstick() -> None:
    """How fast the machine is just now: a desk computer of 2020 takes about 0.6 s."""
    start = time.perf_counter()
    sum(number * number for number in range(10_000_000))
    print(f"yardstick: ten million squares added in {time.perf_counter() - start:.2f} s")


def main() -> None:
    """All figures."""
    gc.set_threshold(*GARBAGE)  # as the server has it
    job, book = large_house(), load()
    yardstick()

    def cold() -> None:
        forget()
        plan(job)

    cold()
    measure("plan of 88 circuits, nothing kept", cold, 5)
    measure("plan of 88 circuits, nothing changed", lambda: plan(job), 20)
    wires = [Wires("THWN-2", "12", 3)]
    facts = facts_of(book, "trench", {})
    measure("fill", lambda: fill(book, "PVC40", "3/4", wires), 500)
    measure("cover", lambda: cover(book, "PVC40", "open_ground", 120, 20, False), 500)
    measure("drop", lambda: drop(book, 120, 12, 118, "12", "cu"), 500)
    measure("one method in one place", lambda: judge.__wrapped__(book, "PVC40", facts), 500)
    measure("wire for a load", lambda: choose(book, Demand(load_a=24, length_ft=80, drop_limit_percent=3)), 300)
    pulled = [Section(straight_in=60, climb_in=-60), Section(bend_deg=90, radius_in=6), Section(straight_in=516)]
    measure("pull force", lambda: pull(book, pulled, [PullWires("THWN-2", "6", "cu", 4)], 0.35), 300)
    measure("box fill", lambda: box_volume(book, [Counted("12", 4)], [Counted("12", 1)], Counted("12", 2)), 300)
    measure("one leg of walk text", lambda: parse_walk(book, "over 43' trench 16\" deep in pvc40 3/4"), 200)
    bare = job.model_copy(update={"circuits": ()})
    rooms = plan_whole(bare, job_book(bare))[1].contexts
    far = distances(bare, job_book(bare))
    measure("circuits proposed for 400 boxes", lambda: propose(bare, book, rooms, far), 5)
    ways(job)
    buying(job)
    recording(job)
    with tempfile.TemporaryDirectory() as folder:
        server = Server(Path(folder), demo=False)
        head = over_http(server, job)
        painted(server, head)
        server.kill()
    yardstick()


def ways(job: Job) -> None:
    """All ways of a house from nothing, of one four times as large, and after one box has moved; a chain's order."""
    book = job_book(job)

    def found(house: Job) -> Callable[[], object]:
        loads = all_loads(house, book)

        def from_nothing() -> object:
            forget()
            return found_ways(house, book, loads)

        return from_nothing

    measure("all ways of the large house from nothing", found(job), 5)
    measure("all ways of one four times as large", found(larger(job, 4)), 3)
    moved = [
        job.model_copy(update={"boxes": tuple(_at(box, n) if box.id == "x7" else box for box in job.boxes)})
        for n in range(20)
    ]
    found_ways(job, book, all_loads(job, book))
    steps = iter(moved)
    measure("ways after one box moved", lambda: found_ways(j := next(steps), book, all_loads(j, book)), 20)
    circuit = next(item for item in job.circuits if item.id == "big-c10")
    measure("the order of a chain of 11, proven", lambda: orders_of(job, book, circuit), 5)


PIPE = (
    "over 15' block wall in emt 1; "
    + "; ".join(
        f"{go} {30 if n % 2 else 18}'" + (" with offset 4\" at 30 after 8'" if n % 3 == 0 else "")
        for n, go in enumerate(("left", "up", "right", "down") * 3)
    )
    + "; over 9' to C-1"
)


def pipes() -> None:
    """A pull of over 300 ft with 20 bends and more, about 30 sticks."""
    job = one_way(PIPE, wire_size="6", breaker_a=60, conductors=4)
    book = job_book(job)
    context = way_contexts(job, book)[0]

    def whole() -> object:
        for kept in (viewed, piped, pulls_of, line_of, force_of, layout_of):
            kept.cache_clear()
        _plans.cache_clear()
        return plan_pull(book, context, 0, ())

    found = plan_pull(book, context, 0, ())
    bent = len(found.drawing.spent) if found.drawing else 0
    print(f"the pull: {found.summary.length_in / 12:.0f} ft, {bent} shapes and corners, {found.sticks} sticks")
    measure("all of a pull, from nothing", whole, 20)
    view, own = viewed(book, context), piped(book, context).pulls[0]
    force = force_of(view, own.first, own.last)
    assert force is not None
    measure("the band of its force", lambda: bands_of(view, own, force), 40)


def buying(job: Job) -> None:
    """The take-off of the large house after an edit, how each row is bought, 600 cuts into coils, one other way."""
    book = job_book(job)

    def moved(n: int) -> Job:
        spot = {"height_in": 16.0 + n}
        return job.model_copy(
            update={"boxes": tuple(b.model_copy(update=spot) if b.id == "x7" else b for b in job.boxes)}
        )

    plans = [plan_whole(moved(n), book)[0] for n in range(20)]
    assert plans[0].buying.taken
    steps = iter(plans)
    measure("take-off after one box moved", lambda: next(steps).buying.taken, 20)
    steps = iter(plans)
    measure("how every row is bought, after it", lambda: next(steps).buying.orders, 20)
    dice = random.Random(600)
    cuts = [float(dice.randint(9, 90)) for _ in range(600)]
    sold = [Coil(25, 21), Coil(50, 38), Coil(100, 67), Coil(250, 139), Coil(500, 260), Coil(1000, 505)]
    measure("600 cuts into coils", lambda: planned(cuts, sold, 0.95, [60.0, 35.0]), 5)
    found = planned(cuts, sold, 0.95, [60.0, 35.0])
    print(f"600 cuts: ${found.cost:.2f}, bound ${found.bound:.2f}, {'proven' if found.proven else 'not proven'}")
    demo = sample("quince-hollow")
    before = plan(demo)
    ways_ = others_of(demo, job_book(demo))
    measure(f"another way of the demo, of {len(ways_)}", lambda: weighed(demo, before, ways_[0]), 5)


def recording(job: Job) -> None:
    """An x-ray of the large house, its cards and holds, 500 photos listed, a photo of 12 million pixels taken in."""
    record = plan(job).record
    row = next(r for r in record.surfaces if r.room.startswith("big-") and r.surface.isdigit())

    def cold() -> None:
        _inside.cache_clear()
        record.xray(row.room, row.surface)

    measure("x-ray of a wall, nothing kept", cold, 20)
    measure("x-ray of a wall", lambda: record.xray(row.room, row.surface), 20)
    measure("card of a box", lambda: record.card("x7"), 50)
    measure("holds of the large house", lambda: holds(job, {}), 20)
    photo = Photo(id="p0", file="0" * 64, wide=4000, tall=3000, room=row.room, surface="0", at_in=10, height_in=10)
    many = tuple(photo.model_copy(update={"id": f"p{n}", "file": f"{n:064x}"}) for n in range(500))
    listed = job.model_copy(update={"photos": many})
    with tempfile.TemporaryDirectory() as folder:
        pictures = Pictures(Path(folder))
        measure("500 photos listed", lambda: photo_rows(listed, pictures), 20)
    testing = plan(job).testing
    circuits = [c.id for c in job.circuits if c.chain]

    def windows() -> None:
        _steps.cache_clear()
        _solved.cache_clear()
        for ident in circuits[:60]:
            testing.steps(ident)

    measure("windows of 60 circuits", windows, 10)
    chain = max((c for c in job.circuits if not c.feeds), key=lambda c: len(c.chain))
    wired = testing.wired(chain)
    faults = faults_of(job, chain, wired)[:12]
    probe = next(s.probe for s in testing.steps(chain.id) if s.probe and s.kind == "volts" and s.key != "dead")
    taken = [Taken(probe=probe, value=111.0, error=0.6)]

    def ranked() -> None:
        _solved.cache_clear()
        suspects(wired, faults, taken, {})

    def one_reading() -> None:
        _solved.cache_clear()
        read(wired, probe)

    measure(f"a simulated reading, {len(chain.chain)} boxes", one_reading, 50)
    measure(f"12 faults ranked over {len(chain.chain)} boxes", ranked, 10)
    noise = io.BytesIO()
    Image.effect_noise((4000, 3000), 64).convert("RGB").save(noise, "JPEG", quality=97)
    measure(f"a photo of {len(noise.getvalue()) / 1e6:.0f} MB taken in", lambda: read_picture(noise.getvalue()), 3)


def _at(box: Box, step: int) -> Box:
    return box.model_copy(update={"at_in": 24.0 + step / 16})


def larger(job: Job, times: int) -> Job:
    """The job with its large house so many times over, as buildings beside it."""
    house = next(item for item in job.structures if item.id == "big")
    rooms = [room for room in job.rooms if room.id.startswith("big-")]
    boxes = [box for box in job.boxes if box.structure == "big"]
    names = {box.id for box in boxes}
    circuits = [c for c in job.circuits if c.panel == "big-p" and all(hop.box in names for hop in c.chain)]
    panel = next(item for item in job.panels if item.id == "big-p")
    more: dict[str, list[Any]] = {
        "structures": [],
        "rooms": [],
        "openings": [],
        "boxes": [],
        "panels": [],
        "circuits": [],
    }
    for n in range(1, times):
        tag = f"{n}-"
        levels = tuple(level.model_copy(update={"id": tag + level.id}) for level in house.levels)
        more["structures"].append(
            house.model_copy(update={"id": tag + "big", "name": f"Large {n}", "levels": levels})
        )
        more["rooms"] += [r.model_copy(update={"id": tag + r.id, "level": tag + r.level}) for r in rooms]
        more["openings"] += [
            o.model_copy(update={"id": tag + o.id, "room": tag + o.room})
            for o in job.openings
            if o.id.startswith("big-")
        ]
        for kind, parts in (("boxes", boxes), ("panels", [panel])):
            more[kind] += [
                p.model_copy(update={
                    "id": tag + p.id, "name": tag + p.name, "structure": tag + "big", "room": tag + (p.room or ""),
                })
                for p in parts
            ]  # fmt: skip
        for c in circuits:
            chain = tuple(
                hop.model_copy(update={"box": tag + hop.box, "after": tag + hop.after if hop.after else None})
                for hop in c.chain
            )
            more["circuits"].append(c.model_copy(update={"id": tag + c.id, "panel": tag + c.panel, "chain": chain}))
    return job.model_copy(update={key: (*getattr(job, key), *parts) for key, parts in more.items()})


def over_http(server: Server, job: Job) -> str:
    """Edits against a server in its own process, until the whole answer is here. The id of the job."""
    line = http.client.HTTPConnection("127.0.0.1", server.port)

    def post(path: str, body: dict[str, object]) -> bytes:
        line.request("POST", path, json.dumps(body), {"Content-Type": "application/json"})
        return line.getresponse().read()

    head = json.loads(post("/api/jobs", {"job": job.model_dump(mode="json")}))["head"]
    state = {"revision": head["revision"], "step": 0, "most": 0}

    def edit(change: dict[str, object], stage: str, look: dict[str, str]) -> None:
        body = {"revision": state["revision"], "edits": [change], "stage": stage, "look": look}
        answer = post(f"/api/jobs/{head['id']}/edits", body)
        state["revision"] += 1
        state["most"] = max(state["most"], len(answer))
        assert f'"revision":{state["revision"]},'.encode() in answer, answer[:300]

    def step() -> int:
        state["step"] += 1
        return state["step"]

    def leg() -> None:
        change = {"op": "set_leg", "way": "big4", "leg": 2, "set": {"length_in": 300 + step()}}
        edit(change, "runs", {"way": "big4"})

    def box() -> None:
        at = {"at_in": 20.0 + step() / 16}
        edit({"op": "set", "kind": "box", "id": "x7", "set": at}, "boxes", {"room": "big-r7"})

    def wall() -> None:
        n = step()
        by = (1.0 if n % 2 else -1.0) * (1 + n / 8)  # it never stands where it stood before
        edit({"op": "move_wall", "room": "big-r7", "side": 1, "by_in": by}, "walls", {"room": "big-r7"})

    measure("edit of a run over HTTP, stored, planned, answered", leg, 40)
    measure("a box moved over HTTP: 400 boxes, 72 rooms", box, 40)

    def trench() -> None:
        change = {"op": "set", "kind": "trench", "id": "t1", "set": {"width_in": 8.0 + step() % 16 / 4}}
        edit(change, "trench", {"line": "t1"})

    def corner() -> None:
        points = [[-4.0, 100.0 - step() % 32 / 4], [-252.0, -352.5]]
        edit({"op": "set", "kind": "trench", "id": "t1", "set": {"points": points}}, "trench", {"line": "t1"})

    def breaker() -> None:
        space = 61 + 2 * (step() % 2)
        edit({"op": "put", "circuit": "big-c9", "space": space}, "circuits", {"circuit": "big-c9"})

    measure("a breaker put elsewhere over HTTP: 88 circuits", breaker, 40)
    measure("a trench dug wider over HTTP", trench, 40)
    measure("a corner of a trench moved over HTTP", corner, 40)
    measure("a shared wall moved over HTTP: 400 boxes, 72 rooms", wall, 40)

    def undone() -> None:
        body = {"revision": state["revision"], "stage": "walls", "look": {"room": "big-r7"}}
        answer = post(f"/api/jobs/{head['id']}/{'redo' if step() % 2 else 'undo'}", body)
        state["revision"] += 1
        assert f'"revision":{state["revision"]},'.encode() in answer, answer[:300]

    step()
    measure("that wall undone and made again over HTTP", undone, 40)
    print(f"the longest of these answers: {state['most']} bytes")
    return str(head["id"])


PAINTED = """() => {
  let start = 0
  addEventListener('keydown', () => (start = performance.now()), { once: true, capture: true })
  const root = document.documentElement
  const when = (there, options) => new Promise(done => {
    const seen = new MutationObserver(() => {
      if (!there()) return
      seen.disconnect()
      requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now() - start)))
    })
    seen.observe(root, options)
  })
  const answered = () => !root.hasAttribute('data-busy')
  window.painted = when(answered, { attributes: true, attributeFilter: ['data-busy'] })
  const moves = () => document.querySelector('[data-testid=ghost]') || answered()
  window.moved = when(moves, { attributes: true, attributeFilter: ['data-busy'], childList: true, subtree: true })
}"""
BOX = {"op": "set", "kind": "box", "id": "x7", "set": {"at_in": 23.5}}
LEG = {"op": "set_leg", "way": "big4", "leg": 2, "set": {"length_in": 312.0}}
NUDGED = (
    ("walls?room=big-r7&pick=opening.big-o7", "a door", "ArrowLeft", True),
    ("walls?room=big-r7&pick=wall.big-r7.1", "a shared wall", "ArrowRight", True),
    ("boxes?room=big-r7&pick=box.x7", "a box", "ArrowRight", True),
    ("circuits?circuit=big-c9", "a breaker", "ArrowRight", False),
)
UNDONE: tuple[tuple[str, str, dict[str, Any]], ...] = (
    ("walls?room=big-r7", "a shared wall", {"op": "move_wall", "room": "big-r7", "side": 1, "by_in": 1.0}),
    ("boxes?room=big-r7", "a box", BOX),
    ("runs?way=big4", "a leg", LEG),
    ("pipe?way=big4", "a leg", LEG),
    ("trench?line=t1", "a trench", {"op": "set", "kind": "trench", "id": "t1", "set": {"width_in": 13.0}}),
    ("buy", "a box", BOX),
    ("rough_in?node=x7", "a box", BOX),
    ("test?circuit=big-c9", "a box", BOX),
)
LONG_AGO = KEPT + 20


def painted(server: Server, job: str) -> None:
    """From a key to the picture on the glass, the server's answer included: what is moved by its arrow key, a state
    that was never planned; and what a stage does undone, so long ago that its plan is kept no more."""

    def told(method: str, path: str, body: object = None) -> Any:
        line = http.client.HTTPConnection("127.0.0.1", server.port)
        line.request(method, path, body and json.dumps(body), {"Content-Type": "application/json"})
        return json.loads(line.getresponse().read())

    def edited(change: dict[str, Any]) -> None:
        revision = told("GET", f"/api/jobs/{job}")["head"]["revision"]
        body = {"revision": revision, "edits": [change], "stage": "walls", "look": {}}
        told("POST", f"/api/jobs/{job}/edits", body)

    def show(name: str, spent: list[float]) -> None:
        most = statistics.quantiles(spent, n=20, method="inclusive")[-1]
        print(f"{name:<52} median {statistics.median(spent):8.3f}   p95 {most:8.3f}   worst {max(spent):8.3f} ms")

    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})

        def spent(key: str) -> float:
            page.evaluate(PAINTED)
            page.keyboard.press(key)
            return float(page.evaluate("() => window.painted"))

        for look, what, key, on_plan in NUDGED:
            page.goto(f"{server.url}/jobs/{job}/{look}")
            settled(page)
            page.locator("main").focus()
            stage = look.partition("?")[0]
            whole, seen = [], []
            for _ in range(20):
                whole.append(spent(key))
                seen.append(float(page.evaluate("() => window.moved")))
            show(f"{what} moved by its key, painted on {stage}", whole[4:])
            if on_plan:
                show("  and seen where it goes", seen[4:])
        for look, what, change in UNDONE:
            said = change.get("set", change)
            field = next(key for key in said if key in ("by_in", "at_in", "length_in", "width_in"))
            for n in range(LONG_AGO):
                own = {field: said[field] + n / 16}
                edited({**change, "set": own} if "set" in change else {**change, **own})
            page.goto(f"{server.url}/jobs/{job}/{look}")
            settled(page)
            back = [spent("Control+z") for _ in range(LONG_AGO)]
            show(f"{what} undone, painted on {look.partition('?')[0]}", back[4:KEPT])
            show("  and one whose plan is kept no more", back[KEPT:])
        browser.close()


if __name__ == "__main__":
    main()
