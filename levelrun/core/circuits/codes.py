"""Codes of findings about circuits and panels."""

from __future__ import annotations

from levelrun.core.findings import Code, finder

CODES: dict[str, Code] = {
    "circuit-unplaced": Code(
        "check",
        "A circuit has no space in its panel yet.",
        "It cannot be bought or landed.",
        "Put it on a free space.",
        "circuits",
    ),
    "place-unsaid": Code(
        "check",
        "Nobody has said what the place of a receptacle is for.",
        "Protection goes by the room.",
        "Say the room, or draw it.",
        "circuits",
    ),
    "space-unsaid": Code(
        "check",
        "Only how many spaces are free is known, not which.",
        "A two-pole breaker wants two spaces below each other.",
        "Say which spaces are taken.",
        "circuits",
    ),
    "panel-short": Code(
        "stop",
        "A panel has fewer spaces than its circuits want.",
        "The last breaker has nowhere to go.",
        "A tandem where listed, a bigger panel, or another sub-panel.",
        "circuits",
    ),
    "space-taken": Code("stop", "Two breakers stand on one space.", "They do not fit.", "Move one.", "circuits"),
    "space-past": Code(
        "stop", "A breaker stands past the last space.", "There is no such space.", "Move it.", "circuits"
    ),
    "tandem-plain": Code(
        "stop",
        "A tandem stands in a space that takes none.",
        "The panel is not listed for it there.",
        "Another space.",
        "circuits",
    ),
    "breaker-wire": Code(
        "stop",
        "The breaker is too big for the circuit's wire.",
        "The wire burns before the breaker opens.",
        "Bigger wire, or a smaller breaker.",
        "circuits",
    ),
    "aluminum-branch": Code(
        "stop", "Aluminum wire on a small branch circuit.", "Loose terminations burn houses.", "Copper.", "circuits"
    ),
    "whip-small": Code(
        "stop", "The whip is smaller than its circuit.", "The thin part burns.", "Same gauge all the way.", "circuits"
    ),
    "four-wires": Code(
        "stop",
        "A range or dryer on three wires.",
        "Neutral on the frame is old work to correct.",
        "Four wires, and the bonding strap out.",
        "circuits",
    ),
    "nameplate-wire": Code(
        "stop",
        "The wire is smaller than its nameplate, or its load, wants.",
        "240.4(G) lets the breaker be large, never the wire small.",
        "Bigger wire.",
        "circuits",
    ),
    "nameplate-breaker": Code(
        "stop",
        "The breaker is larger than its nameplate allows.",
        "A fault burns the windings before it opens.",
        "A breaker not over the greatest on the plate.",
        "circuits",
    ),
    "nameplate-unsaid": Code(
        "check",
        "A circuit goes by a nameplate that nobody has read in.",
        "Its wire and breaker are a guess.",
        "Type its least ampacity and its greatest breaker.",
        "circuits",
    ),
    "plug-rating": Code(
        "stop",
        "A receptacle does not match its breaker or its volts.",
        "The contacts burn, or the plug does not fit.",
        "The matching receptacle.",
        "circuits",
    ),
    "gfci-missing": Code(
        "stop",
        "Ground-fault protection is missing.",
        "A wet hand.",
        "A GFCI breaker, or a GFCI first in the chain.",
        "circuits",
    ),
    "afci-missing": Code(
        "stop",
        "Arc-fault protection is missing.",
        "A nail through a cable.",
        "An AFCI breaker, or an AFCI outlet first in the chain.",
        "circuits",
    ),
    "afci-outlet": Code(
        "check",
        "Arc-fault protection starts at the first outlet, and the home run may not be metal.",
        "A nail through the home run.",
        "An arc-fault breaker, or a home run of steel pipe, MC or AC.",
        "circuits",
    ),
    "bonded-sub": Code(
        "stop",
        "Neutral is joined to ground in a sub-panel.",
        "Neutral current on every bare metal.",
        "Take the bonding screw right out.",
        "circuits",
    ),
    "main-unbonded": Code(
        "stop",
        "Neutral is not joined to ground in the main panel.",
        "A fault never trips.",
        "Put the bonding screw in.",
        "circuits",
    ),
    "service-unsaid": Code(
        "check",
        "Nobody has said where the service disconnect is.",
        "Neutral and ground are joined there, once, and nowhere past it.",
        "Say where it is; then the screw goes in or stays out.",
        "circuits",
    ),
    "bus-small": Code(
        "stop",
        "The main breaker is larger than the panel's bus.",
        "The bus burns before the main opens.",
        "A smaller main, or a panel with a bigger bus.",
        "circuits",
    ),
    "service-small": Code(
        "check",
        "The main of a one-family house is under 100 A.",
        "New service for a dwelling is 100 A at least.",
        "A 100 A main, or say that the service is not part of the work.",
        "circuits",
    ),
    "disconnects-many": Code(
        "stop",
        "A panel in another building has no main and more than six breakers.",
        "Nobody finds six handles in the smoke.",
        "A main breaker or a disconnect before it.",
        "circuits",
    ),
    "ground-bar": Code(
        "stop", "A sub-panel has no ground bar of its own.", "Grounds end on the neutral bar.", "Add one.", "circuits"
    ),
    "neutral-holes": Code(
        "stop", "More neutrals than holes for them.", "Two under one screw work loose.", "A second bar.", "circuits"
    ),
    "feeder-small": Code(
        "stop",
        "A feeder carries more than its breaker or its panel takes.",
        "It trips, or the bus burns.",
        "A bigger feeder, or less load.",
        "circuits",
    ),
    "feeder-three": Code(
        "stop",
        "A feeder has three wires.",
        "Neutral and ground must be apart past the main.",
        "Four wires.",
        "circuits",
    ),
    "electrode": Code(
        "note",
        "A panel in another building wants its own electrode and disconnect.",
        "Lightning, and a hand that finds the switch.",
        "Two rods 6 ft apart or more, No. 6 copper; a main or six throws at most.",
        "circuits",
    ),
    "main-over": Code(
        "stop",
        "The calculated load is over the main breaker.",
        "It trips on a cold evening.",
        "A bigger service, or less load.",
        "circuits",
    ),
    "lug-small": Code(
        "stop",
        "The feeder's wire is bigger than the lugs take.",
        "Strands get cut off to fit.",
        "Splice down with listed connectors, or other lugs.",
        "circuits",
    ),
    "multiwire-leg": Code(
        "stop",
        "Two circuits share a neutral on one leg.",
        "The neutral carries both.",
        "Put one on the other leg.",
        "circuits",
    ),
    "multiwire-tie": Code(
        "stop",
        "Circuits that share a neutral are not disconnected together.",
        "The neutral is live with one off.",
        "Tie the handles, or a two-pole breaker.",
        "circuits",
    ),
    "generator-interlock": Code(
        "stop",
        "A generator inlet without interlock.",
        "It feeds the line, and kills a lineman.",
        "A listed interlock.",
        "circuits",
    ),
    "sharing": Code(
        "check",
        "An appliance that wants a circuit of its own shares one.",
        "It trips with the neighbour on.",
        "Split it off.",
        "circuits",
    ),
    "required-shares": Code(
        "stop",
        "A kitchen, bath or laundry circuit feeds something else.",
        "It is sized for its own place.",
        "Split the other off.",
        "circuits",
    ),
    "required-20": Code(
        "stop",
        "A receptacle of a kitchen, bath or laundry stands on less than 20 A.",
        "A kettle and a hair dryer trip it; the code wants 20 A there.",
        "A 20 A breaker with its wire.",
        "circuits",
    ),
    "outdoor-shares": Code(
        "check",
        "Outdoor outlets hang on indoor lights.",
        "A wet trip darkens the house.",
        "Split them off.",
        "circuits",
    ),
    "circuit-over": Code(
        "stop", "The expected load is over the breaker.", "It trips.", "Split the circuit.", "circuits"
    ),
    "circuit-high": Code(
        "check",
        "Continuous load over 80 % of the breaker.",
        "It trips on a long day.",
        "Spread the load.",
        "circuits",
    ),
    "boxes-many": Code(
        "check",
        "More boxes on a circuit than the rule set or the shop allows.",
        "A long chain to search when it fails.",
        "Split it.",
        "circuits",
    ),
    "circuit-drop": Code(
        "check",
        "Voltage drop over the advice along the chain.",
        "Motors run hot, lights dim.",
        "Wire up a size, or a new home run.",
        "circuits",
    ),
    "drop-at-breaker": Code(
        "note",
        "Voltage drop would be over the advice if the circuit ran at its breaker rating.",
        "Two schools: compute at the breaker, or at the load really expected.",
        "Keep it in mind when the load grows.",
        "circuits",
    ),
    "hop-short": Code(
        "check",
        "A cable is taped shorter than its ends stand apart.",
        "It is cut short, and bought twice.",
        "Tape it again, or let it be worked out.",
        "circuits",
    ),
    "switch-apart": Code(
        "check",
        "A light's switch is on another circuit.",
        "It burns all day, or is dead; two sources meet in one box.",
        "Put both on one circuit.",
        "circuits",
    ),
    "chain-broken": Code(
        "stop",
        "A box in a chain hangs on nothing.",
        "No cable reaches it.",
        "Hang it on the panel or another box.",
        "circuits",
    ),
    "box-twice": Code(
        "note",
        "A box is on two circuits.",
        "Allowed; two breakers to turn off, and each neutral stays with its own hot.",
        "Keep it on one, or group and mark the neutrals.",
        "circuits",
    ),
    "box-loose": Code("check", "Boxes are on no circuit.", "They stay dead.", "Chain them.", "circuits"),
    "three-way-lone": Code(
        "check",
        "A three-way switch has no partner.",
        "It works from one end only.",
        "A second three-way on the same chain.",
        "circuits",
    ),
    "circuits-wanted": Code(
        "check",
        "A circuit that every dwelling wants is missing.",
        "It is on the inspector's list.",
        "Propose circuits.",
        "circuits",
    ),
    "all-dark": Code(
        "check", "One trip darkens a whole floor.", "Stairs in the dark.", "Lights on two circuits.", "circuits"
    ),
}

finding = finder(CODES)
