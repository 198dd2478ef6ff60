"""Codes about panels and circuits."""

from __future__ import annotations

from levelrun.core.findings.entry import CodeEntry

CIRCUITS: dict[str, CodeEntry] = {
    "circuit-unplaced": CodeEntry(
        "check",
        "A circuit has no space in its panel yet.",
        "It cannot be bought or landed.",
        "Put it on a free space.",
    ),
    "panel-short": CodeEntry(
        "stop",
        "A panel has fewer spaces than its circuits want.",
        "The last breaker has nowhere to go.",
        "A tandem where listed, a bigger panel, or another sub-panel.",
    ),
    "space-taken": CodeEntry("stop", "Two breakers stand on one space.", "They do not fit.", "Move one."),
    "space-past": CodeEntry("stop", "A breaker stands past the last space.", "There is no such space.", "Move it."),
    "tandem-plain": CodeEntry(
        "stop",
        "A tandem stands in a space that takes none.",
        "The panel is not listed for it there.",
        "Another space.",
    ),
    "breaker-wire": CodeEntry(
        "stop",
        "The breaker is too big for the circuit's wire.",
        "The wire burns before the breaker opens.",
        "Bigger wire, or a smaller breaker.",
    ),
    "aluminum-branch": CodeEntry(
        "stop", "Aluminum wire on a small branch circuit.", "Loose terminations burn houses.", "Copper."
    ),
    "whip-small": CodeEntry(
        "stop", "The whip is smaller than its circuit.", "The thin part burns.", "Same gauge all the way."
    ),
    "four-wires": CodeEntry(
        "stop",
        "A range or dryer on three wires.",
        "Neutral on the frame is old work to correct.",
        "Four wires, and the bonding strap out.",
    ),
    "plug-rating": CodeEntry(
        "stop",
        "A receptacle does not match its breaker or its volts.",
        "The contacts burn, or the plug does not fit.",
        "The matching receptacle.",
    ),
    "gfci-missing": CodeEntry(
        "stop", "Ground-fault protection is missing.", "A wet hand.", "A GFCI breaker, or a GFCI first in the chain."
    ),
    "afci-missing": CodeEntry(
        "stop",
        "Arc-fault protection is missing.",
        "A nail through a cable.",
        "An AFCI breaker, or an AFCI outlet first in the chain.",
    ),
    "bonded-sub": CodeEntry(
        "stop",
        "Neutral is joined to ground in a sub-panel.",
        "Neutral current on every bare metal.",
        "Take the bonding screw right out.",
    ),
    "main-unbonded": CodeEntry(
        "stop",
        "Neutral is not joined to ground in the main panel.",
        "A fault never trips.",
        "Put the bonding screw in.",
    ),
    "ground-bar": CodeEntry(
        "stop", "A sub-panel has no ground bar of its own.", "Grounds end on the neutral bar.", "Add one."
    ),
    "neutral-holes": CodeEntry(
        "stop", "More neutrals than holes for them.", "Two under one screw work loose.", "A second bar."
    ),
    "feeder-missing": CodeEntry(
        "check", "A sub-panel has no feeder.", "Its wire and breaker are not judged.", "Make a feeder circuit."
    ),
    "feeder-small": CodeEntry(
        "stop",
        "A feeder carries more than its breaker or its panel takes.",
        "It trips, or the bus burns.",
        "A bigger feeder, or less load.",
    ),
    "feeder-three": CodeEntry(
        "stop", "A feeder has three wires.", "Neutral and ground must be apart past the main.", "Four wires."
    ),
    "electrode": CodeEntry(
        "note",
        "A panel in another building wants its own electrode and disconnect.",
        "Lightning, and a hand that finds the switch.",
        "Two rods 6 ft apart or more, No. 6 copper; a main or six throws at most.",
    ),
    "main-over": CodeEntry(
        "stop",
        "The calculated load is over the main breaker.",
        "It trips on a cold evening.",
        "A bigger service, or less load.",
    ),
    "lug-small": CodeEntry(
        "stop",
        "The feeder's wire is bigger than the lugs take.",
        "Strands get cut off to fit.",
        "Splice down with listed connectors, or other lugs.",
    ),
    "multiwire-leg": CodeEntry(
        "stop", "Two circuits share a neutral on one leg.", "The neutral carries both.", "Put one on the other leg."
    ),
    "multiwire-tie": CodeEntry(
        "stop",
        "Circuits that share a neutral are not disconnected together.",
        "The neutral is live with one off.",
        "Tie the handles, or a two-pole breaker.",
    ),
    "generator-interlock": CodeEntry(
        "stop",
        "A generator inlet without interlock.",
        "It feeds the line, and kills a lineman.",
        "A listed interlock.",
    ),
    "sharing": CodeEntry(
        "check",
        "An appliance that wants a circuit of its own shares one.",
        "It trips with the neighbour on.",
        "Split it off.",
    ),
    "required-shares": CodeEntry(
        "stop",
        "A kitchen, bath or laundry circuit feeds something else.",
        "It is sized for its own place.",
        "Split the other off.",
    ),
    "outdoor-shares": CodeEntry(
        "check", "Outdoor outlets hang on indoor lights.", "A wet trip darkens the house.", "Split them off."
    ),
    "circuit-over": CodeEntry("stop", "The expected load is over the breaker.", "It trips.", "Split the circuit."),
    "circuit-high": CodeEntry(
        "check", "Continuous load over 80 % of the breaker.", "It trips on a long day.", "Spread the load."
    ),
    "boxes-many": CodeEntry(
        "check",
        "More boxes on a circuit than the rule set or the shop allows.",
        "A long chain to search when it fails.",
        "Split it.",
    ),
    "circuit-drop": CodeEntry(
        "check",
        "Voltage drop over the advice along the chain.",
        "Motors run hot, lights dim.",
        "Wire up a size, or a new home run.",
    ),
    "chain-broken": CodeEntry(
        "stop", "A box in a chain hangs on nothing.", "No cable reaches it.", "Hang it on the panel or another box."
    ),
    "box-twice": CodeEntry(
        "stop", "A box is on two circuits.", "Two breakers to turn off, two neutrals to mix up.", "Keep it on one."
    ),
    "run-differs": CodeEntry(
        "check",
        "A run is planned on another breaker or wire than its circuit has in the panel.",
        "One of the two is wrong, and one of them is bought.",
        "Set one as the other.",
    ),
    "box-loose": CodeEntry("check", "Boxes are on no circuit.", "They stay dead.", "Chain them."),
    "three-way-lone": CodeEntry(
        "check",
        "A three-way switch has no partner.",
        "It works from one end only.",
        "A second three-way on the same chain.",
    ),
    "circuits-wanted": CodeEntry(
        "check",
        "A circuit that every dwelling wants is missing.",
        "It is on the inspector's list.",
        "Propose circuits.",
    ),
    "all-dark": CodeEntry(
        "check", "One trip darkens a whole floor.", "Stairs in the dark.", "Lights on two circuits."
    ),
}
