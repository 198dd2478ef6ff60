"""What a line from a panel may end at: eleven kinds of job, each with what it usually is. Common practice, no source;
the watts and breakers are those of the table of usual loads."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import Any

from levelrun.core.boxes.machines import BY_NAME, Machine
from levelrun.core.boxes.things import HALF, WHOLE
from levelrun.core.site.called import BUILDINGS as SITE_BUILDINGS


@dataclass(frozen=True, kw_only=True)
class Kind:
    """A kind of end. words: after `to`; box: fields of the box there; feeds: a panel stands there, `building` that it
    brings its own; whip: a disconnect first, then the equipment at the end of a whip; load_first: amperes right
    after its word are its load; least_wire, least_breaker_a: what the trade does not go under; usual: what its
    sentence begins with, blank by blank, to be changed."""

    key: str
    title: str
    words: tuple[str, ...]
    usual: dict[str, str] = field(default_factory=dict)
    box: dict[str, Any] = field(default_factory=dict)
    volts: int = 120
    breaker_a: float = 20.0
    neutral: bool = True
    load_a: float | None = None
    nameplate: bool = False
    feeds: bool = False
    building: str = ""
    whip: bool = False
    load_first: bool = False
    least_wire: str = "14"
    least_breaker_a: float = 15.0
    ask: bool = False


# Buildings beside the house, by their kind.
BUILDINGS = {word: kind for word, kind in SITE_BUILDINGS.items() if word != "house"}
# Pumps that are wired as a well pump is, by their nameplate.
PUMPS = ("jet pump", "booster pump", "pressure pump", "submersible pump", "irrigation pump", "grinder pump")


KINDS = (
    Kind(
        key="outlet", title="an outlet", words=("outlet", "receptacle", "plug"), box={"kind": "receptacle"},
        usual={"length": "20'", "place": "stud_wall", "method": "NM-B", "amps": "20a", "room": "garage"},
    ),
    Kind(
        key="machine", title="a machine of its own", words=("machine",), box={"kind": "equipment"}, volts=240,
        breaker_a=30.0, neutral=False,
        usual={
            "length": "30'", "place": "shop_surface", "method": "EMT", "amps": "50a", "volts": "240v",
            "name": "planer", "load": "36a", "room": "garage",
        },
    ),
    Kind(
        key="vehicle", title="a vehicle", volts=240, breaker_a=60.0, neutral=False,
        words=("vehicle", "charger", "car charger", "vehicle charger", "EV charger", "EV", "car",
               "level 2 charger", "level two charger", "charging station", "wall charger"),
        box={"kind": "equipment", "serves": "vehicle", "continuous": True}, load_a=48.0, load_first=True,
        usual={"length": "24'", "place": "shop_surface", "method": "EMT", "load": "48a"},
    ),
    Kind(
        key="range", title="a range", words=("range", "stove"), volts=240, breaker_a=50.0,
        box={"kind": "receptacle", "serves": "range", "use": "kitchen"},
        usual={"length": "38'", "place": "crawl_space", "method": "NM-B"},
    ),
    Kind(
        key="dryer", title="a dryer", words=("dryer",), volts=240, breaker_a=30.0,
        box={"kind": "receptacle", "serves": "dryer", "use": "laundry"},
        usual={"length": "22'", "place": "stud_wall", "method": "NM-B"},
    ),
    Kind(
        key="heat-pump", title="a heat pump", volts=240, breaker_a=30.0, neutral=False,
        words=("heat pump", "mini-split", "mini split", "air conditioner", "condenser", "AC unit"),
        box={"kind": "equipment", "serves": "air_conditioner", "outdoors": True}, nameplate=True, whip=True,
        least_wire="12",
        usual={"length": "26'", "place": "crawl_space", "method": "NM-B", "mca": "24", "mocp": "40"},
    ),
    Kind(
        key="water-heater", title="a water heater", volts=240, breaker_a=30.0, neutral=False,
        words=("water heater", "hot water heater", "hot water tank", "water tank heater"),
        box={"kind": "equipment", "serves": "water_heater"}, load_first=True,
        usual={"length": "17'", "place": "stud_wall", "method": "NM-B"},
    ),
    Kind(
        key="generator", title="a generator inlet", volts=240, breaker_a=30.0,
        words=("generator inlet", "generator", "inlet", "generator inlet box", "inlet box", "power inlet",
               "generator plug"),
        box={"kind": "equipment", "serves": "generator", "outdoors": True},
        usual={"length": "12'", "place": "stud_wall", "method": "NM-B"},
    ),
    Kind(
        key="pump", title="a well pump", words=("well pump", "pump", *PUMPS), volts=240,
        breaker_a=20.0, neutral=False,
        box={"kind": "equipment", "serves": "pump", "outdoors": True}, nameplate=True,
        least_wire="12",
        usual={"length": "70'", "place": "trench", "depth": '18"', "method": "PVC40", "mca": "10", "mocp": "20"},
    ),
    Kind(
        key="sub-panel", title="a sub-panel here", volts=240, breaker_a=60.0, feeds=True,
        words=("sub-panel", "subpanel", "sub panel", "panel"),
        usual={"length": "30'", "place": "crawl_space", "method": "SER", "fed": "S", "amps": "60a"},
    ),
    Kind(
        key="building", title="another building", words=tuple(BUILDINGS),
        volts=240, breaker_a=60.0, feeds=True, building="shed",
        usual={"length": "60'", "place": "trench", "depth": '18"', "method": "PVC40", "fed": "Shed", "amps": "60a"},
    ),
)  # fmt: skip
ENDS = {word: kind for kind in KINDS for word in kind.words}
# What stands at an outlet of its own, said as the end itself: to a dishwasher. The fields of its box.
PLUGGED: dict[str, dict[str, Any]] = {
    "garage door opener": {"serves": "opener", "use": "garage"},
    "garage opener": {"serves": "opener", "use": "garage"},
    "island outlet": {"use": "kitchen"},
    **{word: {"serves": "washer", "use": "laundry"} for word in ("washer", "washing machine")},
    **{
        word: {"serves": serves}
        for serves, words in {
            "refrigerator": ("refrigerator", "fridge", "freezer"), "dishwasher": ("dishwasher",),
            "disposer": ("disposer", "disposal", "garbage disposal", "garbage disposer"),
            "microwave": ("microwave",), "opener": ("opener",),
            "counter": ("counter outlet", "counter"),
        }.items()
        for word in words
    },
    "small appliance": {"serves": "counter", "use": "kitchen"},
}  # fmt: skip
# What this program holds no rules for, and whose mistakes kill: said, and left alone.
NOT_HELD = {
    word: f"{what} are wired by article 680: bonding, distances, GFCI and a disconnect in sight. None of it is in "
    "these rules, so nothing is worked out here; ask a licensed electrician"
    for what, words in {
        "hot tubs": ("hot tub", "hot tubs", "spa", "swim spa", "jacuzzi", "whirlpool tub", "jetted tub"),
        "pools": ("pool", "swimming pool", "pool pump", "pool heater", "pool light"),
        "ponds and fountains": ("fountain", "fountain pump", "pond pump", "pond", "koi pond", "water feature"),
    }.items()
    for word in words
} | {
    word: f"{what}: {section} is not in these rules, so nothing is worked out here; ask a licensed electrician"
    for what, section, words in (
        ("solar panels and storage feed back into the panel", "what articles 690, 705 and 706 ask",
         ("solar panels", "solar panel", "solar inverter", "inverter", "solar", "battery storage", "house battery")),
        ("docks and boats are wired by articles 555 and 682", "what they ask", ("dock", "boat lift", "boathouse")),
        ("lifts and elevators for people are wired by article 620", "what it asks", ("elevator", "dumbwaiter")),
        ("wire of low voltage and of data is not worked out here", "what articles 725 and 800 ask",
         ("thermostat wire", "thermostat cable", "thermostat", "ethernet", "ethernet cable", "network cable", "cat5",
          "cat6", "coax", "speaker wire", "doorbell wire", "phone line", "phone wire", "alarm wire")),
        ("a transfer switch parts a house from its utility (article 702)", "how it is wired",
         ("transfer switch", "automatic transfer switch", "manual transfer switch")),
    )
    for word in words
}  # fmt: skip


def _own(serves: str, volts: int, breaker_a: float, least_a: float = 15.0) -> Kind:
    """A machine that is wired, by what it is; what is said first of it is its load."""
    box = {"kind": "equipment", **({"serves": serves} if serves else {})}
    return replace(
        ENDS["machine"], box=box, volts=volts, neutral=volts == 120,
        breaker_a=breaker_a, least_breaker_a=least_a, load_first=True,
    )  # fmt: skip


def _of(machine: Machine) -> Kind:
    """A machine of the table of machines: its own outlet or fan box, or wired."""
    box = {**machine.box, **({"use": machine.use} if machine.use else {})}
    like = "machine" if machine.box["kind"] == "equipment" else "outlet"
    return replace(
        ENDS[like], box=box, volts=machine.volts, neutral=machine.volts == 120, breaker_a=machine.breaker_a,
        least_breaker_a=machine.breaker_a if machine.volts == 120 else 15.0, load_first=like == "machine",
        ask=machine.ask,
    )  # fmt: skip


# What a motor home plugs into beside its parking place: 30 A of 120 V, or 50 A of 120 and 240 V (NEC 551.81).
CAMPERS = ("RV outlet", "RV receptacle", "RV plug", "RV", "RV pedestal", "camper outlet", "camper", "motor home")
CAMPER = replace(
    ENDS["outlet"], title="an RV outlet", box={"kind": "receptacle", "outdoors": True, "gangs": 2}, breaker_a=30.0
)
FANS = (
    "fan", "ceiling fan", "exhaust fan", "whole house fan", "fan light", "fan light combo", "exhaust fan light",
    "fan box",
)  # fmt: skip
LIGHTS = (
    "lighting circuit", "general lighting circuit", "lighting",
    "light", "recessed light", "ceiling light", "wall light", "vanity light", "sink light", "under cabinet lights",
    "under cabinet light", "undercabinet lights", "undercabinet light", "under-cabinet lights", "under-cabinet light",
    "can light", "pot light", "downlight", "pendant", "pendant light", "chandelier", "sconce",
    "track light", "strip light", "work light", "shop light", "stair light",
)  # fmt: skip
LIGHTS_OUT = (
    "post light", "lamp post", "pole light", "driveway light", "yard light", "flood light", "floodlight",
    "security light", "outside light", "outdoor light", "motion light", "motion sensor light",
)  # fmt: skip
# Switches of which several work one light.
WAYS = {
    f"{count}{gap}way{switch}": ways
    for ways, counts in ((3, ("3", "three")), (4, ("4", "four"))) for count in counts for gap in ("-", " ")
    for switch in (" switch", "")
}  # fmt: skip
# What stands outdoors without saying so.
OUTDOOR = LIGHTS_OUT
# A vehicle that is charged at an outlet: the charger that is plugged in there draws 80 % of its 50 A (625.42).
VEHICLE_PLUG = replace(
    ENDS["vehicle"], title="an outlet for a vehicle", breaker_a=50.0, least_breaker_a=50.0, load_a=40.0, neutral=True,
    load_first=False, box={"kind": "receptacle", "serves": "vehicle", "continuous": True},
)  # fmt: skip
ALARMS = ("smoke alarm", "smoke detector", "alarm")
# Machines that are wired, fans, alarms, a welder and a light: volts and breakers of the table of usual loads.
WIRED = {
    "kiln": _own("kiln", 240, 60.0),
    **{word: _own("furnace", 120, 15.0) for word in ("furnace", "gas furnace", "oil furnace")},
    **{
        word: _own("bath_heater", 120, 20.0, least_a=20.0)
        for word in (
            "bath heater",
            "bathroom heater",
            "bath fan heater",
            "fan heater",
            "fan heater light",
            "fan light heater",
            "fan light heater combo",
            "heater fan light",
            "heat lamp fan",
        )
    },
    **{
        word: _own("space_heater", 240, 20.0)
        for word in ("baseboard heater", "baseboard heaters", "baseboard", "space heater", "wall heater", "heater")
    },
    **{word: _own("oven", 240, 30.0, least_a=30.0) for word in ("wall oven", "oven")},
    "cooktop": _own("cooktop", 240, 40.0, least_a=30.0),
    **dict.fromkeys(
        ("disconnect", "safety switch", "disconnect switch"),
        replace(_own("", 240, 30.0), box={"kind": "disconnect"}),
    ),
    "boiler": _own("furnace", 120, 15.0),
    **{word: replace(ENDS["outlet"], box={"kind": "fan"}, breaker_a=15.0) for word in FANS},
    **{word: replace(ENDS["outlet"], box={"kind": "smoke"}, breaker_a=15.0) for word in ALARMS},
    **{word: replace(ENDS["outlet"], box={"kind": "switch"}, breaker_a=15.0) for word in ("switch", "light switch")},
    **{word: replace(ENDS["outlet"], box={"kind": "switch", "ways": n}, breaker_a=15.0) for word, n in WAYS.items()},
    **{word: replace(ENDS["outlet"], box={"kind": "junction"}) for word in ("junction box", "j-box", "splice box")},
    **dict.fromkeys(CAMPERS, CAMPER),
    **{word: replace(ENDS["outlet"], box={"kind": "light"}, breaker_a=15.0) for word in (*LIGHTS, *LIGHTS_OUT)},
    "welder": replace(ENDS["outlet"], box={"kind": "receptacle", "serves": "welder"}, volts=240, breaker_a=50.0),
    **{word: _of(machine) for word, machine in BY_NAME.items()},
}
# What is said of an outlet before its word: fields of its box.
_SHOWN = (
    "duplex", "standard", "regular", "normal", "plain", "single", "double", "usb", "tamper resistant", "weatherproof",
    "weather resistant", "wr", "tr", "surface mounted", "flush mounted",
)  # fmt: skip
QUALIFIED: dict[str, dict[str, Any]] = {
    **{word: {"protects": "gfci"} for word in ("gfci", "ground fault", "ground-fault", "gfi")},
    **{word: {"protects": "afci"} for word in ("afci", "arc fault", "arc-fault")},
    **{word: {"switched": "half"} for word in HALF}, **{word: {"switched": "whole"} for word in WHOLE},
    **{word: {"gangs": 2} for word in ("quad", "two gang", "2 gang", "2-gang", "two-gang", "fourplex")},
    **{word: {} for word in (*_SHOWN, "one gang", "1 gang", "single gang")},
}  # fmt: skip
# Words offered for the end of a line: one of each.
OFFERED = (
    *(kind.words[0] for kind in KINDS),
    "kiln", "furnace", "bath heater", "baseboard heater", "space heater", "oven", "cooktop", "air compressor",
    "boiler", "fan", "ceiling fan", "smoke alarm", "RV outlet", "light", "post light", "welder", "dishwasher",
    "refrigerator", "microwave", "washer", "table saw", "sump pump", "bidet", "floor heat", "gate opener",
    "sauna heater", "steam shower", "tankless water heater", "air handler", "range hood", "attic fan",
    "electric furnace", "gas range", "gas dryer",
)  # fmt: skip
USES = {
    "garage": "garage", "kitchen": "kitchen", "bath": "bath", "bedroom": "bedroom", "living room": "common",
    "hall": "hall", "dining room": "dining", "laundry": "laundry", "basement": "basement", "crawl space": "crawl",
    "utility room": "utility", "shop": "shop", "attic": "attic", "closet": "closet", "porch": "porch",
}  # fmt: skip
# Other words for them.
CALLED = {
    "bathroom": "bath", "hallway": "hall", "family room": "common", "great room": "common", "workshop": "shop",
    "crawlspace": "crawl",
    **dict.fromkeys(("den", "rec room", "game room", "media room", "sunroom", "lounge", "bonus room"), "common"),
    **dict.fromkeys(("office", "study", "nursery", "guest room", "bunk room", "loft"), "bedroom"),
    **dict.fromkeys(("powder room", "half bath"), "bath"), **dict.fromkeys(("foyer", "entry", "entryway"), "hall"),
    **dict.fromkeys(("mud room", "mudroom"), "laundry"), **dict.fromkeys(("pantry", "storage room"), "storage"),
    **dict.fromkeys(("mechanical room", "furnace room"), "utility"), "cellar": "basement",
    **dict.fromkeys(("deck", "patio"), "porch"),
}  # fmt: skip
