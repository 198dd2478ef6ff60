"""The job: what the user said. Everything else follows from it through `plan`.

Lengths are inches, loads amperes or watts, angles degrees. Models are frozen and refuse unknown keys.
"""

from levelrun.core.boxes.parts import Box, Panel
from levelrun.core.buying.parts import Pack, Price, Purchase, Stock, Want
from levelrun.core.circuits.parts import Circuit, Hop
from levelrun.core.job.book import job_book
from levelrun.core.job.shop import Buying, Habits, Labour, LocalNote, Piping, Pole, PoleMark, RoughIn, Routing
from levelrun.core.job.whole import FORMAT, FORMAT_VERSION, PARTS, Job
from levelrun.core.part import Frozen, Id, Inches, Name
from levelrun.core.roughin.parts import Built, Card, Closing, Fault, Hold, Photo, Tick, Torque, Visit
from levelrun.core.site.parts import Fixture, Level, Opening, Room, Side, Structure
from levelrun.core.testing.parts import Measured
from levelrun.core.trench.parts import Electrode, Reading, Service, Span, SpanEnd, Trench, YardPart
from levelrun.core.ways.parts import Joint, Leg, LegFacts, Shape, Way

__all__ = [
    "FORMAT",
    "FORMAT_VERSION",
    "PARTS",
    "Box",
    "Built",
    "Buying",
    "Card",
    "Circuit",
    "Closing",
    "Electrode",
    "Fault",
    "Fixture",
    "Frozen",
    "Habits",
    "Hold",
    "Hop",
    "Id",
    "Inches",
    "Job",
    "Joint",
    "Labour",
    "Leg",
    "LegFacts",
    "Level",
    "LocalNote",
    "Measured",
    "Name",
    "Opening",
    "Pack",
    "Panel",
    "Photo",
    "Piping",
    "Pole",
    "PoleMark",
    "Price",
    "Purchase",
    "Reading",
    "Room",
    "RoughIn",
    "Routing",
    "Service",
    "Shape",
    "Side",
    "Span",
    "SpanEnd",
    "Stock",
    "Structure",
    "Tick",
    "Torque",
    "Trench",
    "Visit",
    "Want",
    "Way",
    "YardPart",
    "job_book",
]
