"""What the shop does by habit, the story pole, and what the authority here says."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StrictBool, StringConstraints

from levelrun.core.part import Frozen, Id, Inches, Name, School, Supplier, Text


class PoleMark(Frozen):
    """One mark of the story pole: bottom, centre or top of the box, inches over the floor."""

    mark: Literal["bottom", "centre", "top"]
    at_in: Annotated[float, Field(strict=True, ge=0, le=144)]


class Pole(Frozen):
    """The story pole: all heights once. Working electricians disagree; the defaults are the commoner school."""

    receptacle: PoleMark = PoleMark(mark="top", at_in=16)
    switch: PoleMark = PoleMark(mark="top", at_in=48)
    counter: PoleMark = PoleMark(mark="bottom", at_in=42)
    vanity: PoleMark = PoleMark(mark="top", at_in=44)
    garage: PoleMark = PoleMark(mark="bottom", at_in=48)
    outdoor: PoleMark = PoleMark(mark="centre", at_in=24)
    wall_light: PoleMark = PoleMark(mark="centre", at_in=80)
    hole_line_in: Annotated[float, Field(strict=True, ge=1, le=96)] = 24


Minutes = Annotated[float, Field(strict=True, ge=0, le=600)]


class Routing(Frozen):
    """How cables go through the frame, and the minutes that each thing on the way costs: common practice, no source.

    Schools: through the studs at the hole line; up and over the ceiling; down and under the floor; the cheapest of
    all.
    """

    school: School = "cheapest"
    stud_minutes: Minutes = Field(0.25, description="A hole in a stud")
    joist_minutes: Minutes = Field(0.5, description="A hole in a joist, overhead")
    plate_minutes: Minutes = Field(2.0, description="A hole in a plate, and sealing it")
    corner_minutes: Minutes = Field(1.0, description="A corner: two holes that meet")
    header_minutes: Minutes = Field(1.0, description="Over the header of a door, under a window")
    trip_minutes: Minutes = Field(3.0, description="Under the roof or the floor and back, a cable's share")
    fish_minutes: Minutes = Field(15.0, description="A stretch fished in a closed wall")
    cables_a_hole: Annotated[int, Field(strict=True, ge=1, le=4)] = Field(2, description="Small cables in one hole")


class Piping(Frozen):
    """How pipe is made up and pulled: common practice, no source.

    Schools: one size over the legal one where large wires go round bends, or the smallest legal; glue the whole pull
    before any wire goes in, or thread it piece by piece (300.18 asks for the first); offsets by exact trigonometry,
    or by the multipliers of the bender's chart.
    """

    size: Literal["one_over", "legal"] = Field("one_over", description="Where four No. 6 or more go round two bends")
    order: Literal["glue_first", "thread_first"] = Field("glue_first", description="Pipe whole, or piece by piece")
    offsets: Literal["exact", "chart"] = Field("exact", description="Distance between the marks of an offset")
    lube: Literal["gel", "paste", "dry"] = "gel"
    people: Annotated[int, Field(strict=True, ge=1, le=2)] = Field(1, description="Hands on the pulling end")
    hottest_f: Annotated[float, Field(strict=True, ge=60, le=180)] = Field(
        120.0, description="How hot pipe in the sun gets here, °F"
    )


Percent = Annotated[float, Field(strict=True, ge=0, le=200)]


class Buying(Frozen):
    """How the shop buys: common practice, no source.

    Schools: wires joined by twist-on connectors, or by levers; one cable in a clamp,
    or two small ones in a clamp that
    is listed for it.
    """

    joints: Literal["twist", "lever"] = Field("twist", description="What joins wires in a box")
    cables_a_clamp: Annotated[int, Field(strict=True, ge=1, le=2)] = Field(
        1, description="Small cables in one connector: two only where it is listed for two"
    )
    supplier: Supplier = Field("", description="Where all is bought; empty: each thing where it is cheapest")
    colour: Literal["white", "ivory", "almond", "grey", "brown", "black"] = Field(
        "white", description="Of devices and plates"
    )
    tax_percent: Percent = 6.0
    margin_percent: Percent = Field(20.0, description="On material and labour, in the quote")
    leftover_ft: Annotated[float, Field(strict=True, ge=1, le=200)] = Field(
        15.0, description="A leftover of a coil so long goes back on the truck"
    )
    stale_days: Annotated[int, Field(strict=True, ge=1, le=1000)] = Field(
        60, description="A price older than this is asked again"
    )
    permit_dollars: Annotated[float, Field(strict=True, ge=0, le=100_000)] = 90.0


class Labour(Frozen):
    """Minutes of work by task, and hours in a day: common practice, no source. Holes and corners of ways stand under
    routing; trenches go by cubic feet."""

    box_minutes: Minutes = Field(10.0, description="A box set and fastened")
    make_up_minutes: Minutes = Field(8.0, description="A box made up: stripped, joined, folded in")
    device_minutes: Minutes = Field(8.0, description="A device and its plate, after the drywall")
    fixture_minutes: Minutes = Field(25.0, description="A light or fan hung")
    breaker_minutes: Minutes = Field(8.0, description="A circuit landed in the panel, torqued")
    panel_minutes: Minutes = Field(180.0, description="A panel set and dressed")
    bend_minutes: Minutes = Field(4.0, description="A bend laid out and made")
    wire_foot_minutes: Minutes = Field(0.25, description="A foot of wires pulled into pipe")
    rod_minutes: Minutes = Field(35.0, description="A rod driven and clamped")
    hours_a_day: Annotated[float, Field(strict=True, ge=1, le=16)] = 8.0
    added_after_percent: Percent = Field(
        140.0, description="What work takes more once the walls are shut, of its hours"
    )


class RoughIn(Frozen):
    """How boxes are made up and what is kept of it: common practice, no source.

    Schools: power enters a box at the bottom and loads leave at the top, so that each cable is known by where it
    comes in, or wherever it is nearest; wires folded like an accordion, so that a drywall router only nicks their
    ends, or rolled tight to the back, out of its reach.
    """

    enters: Literal["bottom", "anywhere"] = Field("bottom", description="Where power comes into a box")
    fold: Literal["accordion", "roll"] = Field("accordion", description="How wires are put back into a box")
    photos: StrictBool = Field(True, description="A wall with cable in it wants a photo before it is closed")
    clear_in: Annotated[float, Field(strict=True, ge=0.5, le=12)] = Field(
        2.0, description="No screw is driven so near to a cable or pipe"
    )
    off_percent: Percent = Field(10.0, description="A torque so far from its label is asked about")


class Habits(Frozen):
    """Shop habits: common practice, no source. Changed once, they travel with the job."""

    panel_makeup_in: Inches = 42
    box_makeup_in: Inches = 8
    outside_makeup_in: Inches = 12
    loop_in: Inches = 6
    waste_percent: Annotated[float, Field(strict=True, ge=0, le=50)] = 5
    first_staple_in: Annotated[float, Field(strict=True, ge=1, le=12)] = 8
    staple_spacing_in: Annotated[float, Field(strict=True, ge=6, le=54)] = 48
    temperature_swing_f: Annotated[float, Field(strict=True, ge=0, le=200)] = 100
    dollars_per_hour: Annotated[float, Field(strict=True, ge=0, le=1000)] = 65
    pole: Pole = Pole()
    air_tight_outside: StrictBool = Field(False, description="Cold climate: every box in an outside wall air-tight")
    opener_from_door_in: Inches = Field(132, description="Least distance of a door opener's outlet from the door")
    stud_within_in: Annotated[float, Field(strict=True, ge=0, le=12)] = Field(
        2, description="A place typed in a sentence goes to the nearest stud within so much; 0: stays as typed"
    )
    boxes_per_circuit: Annotated[int, Field(strict=True, ge=2, le=40)] = 10
    routing: Routing = Routing()
    piping: Piping = Piping()
    buying: Buying = Buying()
    labour: Labour = Labour()
    roughin: RoughIn = RoughIn()
    district: Literal["heavy", "medium", "light"] = Field(
        "heavy", description="Ice and wind that a span is reckoned with: a planning figure"
    )
    light_wire: Literal["14", "12"] = Field("14", description="Lights on 14 at 15 A, or 12 everywhere")


class LocalNote(Frozen):
    """A local rule: a number of the rule set as the authority here wants it, with who said so and when."""

    id: Id
    key: Annotated[str, StringConstraints(pattern=r"^[a-z0-9_]{1,60}$")]
    value: Annotated[float, Field(strict=True, ge=-1e6, le=1e6, allow_inf_nan=False)]
    who: Name
    when: Annotated[str, StringConstraints(pattern=r"^(\d{4}-\d{2}-\d{2})?$")] = ""
    why: Text = ""
    approved: StrictBool = Field(False, description="The authority approved it in writing; without, it never loosens")
