"""Codes of findings about what lies between buildings."""

from __future__ import annotations

from levelrun.core.findings import Code, Stage, finder

T: Stage = "trench"
CODES: dict[str, Code] = {
    "trench-crossed": Code(
        "stop", "A trench crosses itself.", "Nothing is laid in a knot.", "Move a corner of it.", T
    ),
    "trench-under": Code(
        "check", "A trench goes under a building.",
        "Nobody digs there, and only pipe may lie there (300.5(C)).", "Go round it.", T,
    ),
    "trench-apart": Code(
        "check", "A trench does not reach the building that it goes to.",
        "Feet are missing, or the building stands elsewhere.", "Move its end to the wall.", T,
    ),
    "trench-empty": Code("note", "Nothing lies in a trench.", "It is dug for nothing.", "Lay a way in it.", T),
    "trench-way-out": Code(
        "check", "A trench is 4 ft deep or more.", "Whoever is in it must get out at once.",
        "A ladder or ramp within 25 ft.", T,
    ),
    "trench-guard": Code(
        "check", "A trench is 5 ft deep or more.", "Its sides come down without warning: people die of it.",
        "Slope, shore or shield it, or dig less deep.", T,
    ),
    "trench-marks": Code(
        "check", "Marks are not called.", "A gas line or a cable is hit: before digging is the law, everywhere.",
        "Call, wait, dig by hand beside the marks.", T,
    ),
    "ticket-old": Code(
        "check", "The marks are not good on this day.", "Paint fades, lines are moved: outside its days it covers "
        "nobody.", "Call again.", T,
    ),
    "step-passed": Code(
        "check", "A step that holds was passed.", "What is covered unseen is dug up again.",
        "Have it seen, or say who agreed.", T,
    ),
    "service-near": Code(
        "check", "A service lies near to what is laid.", "Gas and water want room to be mended; the utility says how "
        "much.", "Ask the utility, lay it deeper or go round.", T,
    ),
    "service-unsaid": Code(
        "check", "How deep a service lies is not said.", "Whether it is passed over or under hangs on it.",
        "Say its depth, or find it by hand.", T,
    ),
    "service-beside": Code(
        "check", "A trench runs close beside a service.", "It is undercut, or hit on its whole length.",
        "Keep a foot or more away.", T,
    ),
    "service-private": Code(
        "check", "A line of the owner's own is crossed.", "The marks desk marks to the meter only: nobody marks this "
        "one.", "Find it yourself, or hire one who does.", T,
    ),
    "trench-septic": Code(
        "check", "A trench goes through a septic field.", "Pipes are cut, and the field is ruined.", "Go round it.", T
    ),
    "trench-pool": Code(
        "check", "A trench passes a pool.", "Near a pool it has rules of its own.", "Ask, or keep 5 ft away.", T
    ),
    "trench-rock": Code(
        "stop", "Cable lies in rock under concrete.", "Only a raceway may lie less deep in rock.", "Pipe for it.", T
    ),
    "ribbon-missing": Code(
        "check", "No ribbon over a trench.", "The next one who digs is not warned.", "Lay it, 12 in or more over.", T
    ),
    "slip-joint": Code(
        "check", "The ground moves, and a riser has no slip joint.",
        "Settling or frost tears the pipe from its LB.", "An expansion fitting as a slip joint in each riser.", T,
    ),
    "ground-moves": Code(
        "note", "Whether the ground settles or heaves is not said.", "A riser then wants a slip joint.",
        "Say it.", T,
    ),
    "riser-guard": Code(
        "stop", "A riser is not guarded as deep as it must be.",
        "A spade or a wheel hits it just under the ground.", "Schedule 80, or steel.", T,
    ),
    "span-unhung": Code(
        "check", "How high a span is held is not said.", "Whether it clears hangs on it.",
        "Tape the attachment over the ground at both ends.", T,
    ),
    "span-clears": Code(
        "stop", "A span hangs too low.", "People, ladders or trucks reach it.",
        "Higher ends, less sag, or under ground.", T,
    ),
    "span-pull": Code(
        "stop", "A span pulls harder in ice and wind than its messenger takes.", "It comes down live.",
        "More sag, a larger messenger, a pole between.", T,
    ),
    "span-tight": Code(
        "stop", "A span is strung so tight that the cold pulls it straight.", "The attachment or the wire gives.",
        "More sag.", T,
    ),
    "span-long": Code(
        "check", "A long span.", "Sag and pull grow with its square.", "A pole between, or under ground.", T
    ),
    "span-roof": Code(
        "stop", "A span hangs too low over a roof.", "Whoever works on the roof touches it.",
        "A higher mast, or another end.", T,
    ),
    "span-over": Code(
        "check", "A span passes over a building.", "It wants 8½ ft over its roof, and its height is not known.",
        "Go round it, or tape it.", T,
    ),
    "span-window": Code(
        "stop", "A span is within reach of a window, door or balcony.", "It is touched from there.",
        "Move the attachment, or over the top of the window.", T,
    ),
    "span-about": Code(
        "check", "What stands about the ends of a span is not said.",
        "3 ft from windows that open, doors, porches, balconies.", "Look, and say it.", T,
    ),
    "span-pool": Code(
        "stop", "A span passes over a pool or close to it.", "Poles and nets reach it, wet.",
        "Not here: another way; article 680 has the distances.", T,
    ),
    "span-splices": Code(
        "check", "Whether the splices of a span are listed and in reach is not said.", "A poor one burns.",
        "Listed for it, where a ladder reaches.", T,
    ),
    "span-height": Code(
        "check", "An attachment stands very high.", "It wants a lift, and someone to agree.", "Lower, or ask.", T
    ),
    "mast-guy": Code(
        "check", "Whether a mast is braced is not said.", "In ice it bends or pulls out of the roof.",
        "A guy or brace, or hang it on the wall.", T,
    ),
    "mast-small": Code(
        "check", "A mast of small pipe holds a span.", "It bends under ice.", "2 in rigid, braced.", T
    ),
    "electrode": Code(
        "check", "A panel in another building wants its own electrode.",
        "Lightning and a broken neutral find earth there.",
        "What is in the earth already must be used; else two rods, 6 ft apart or more.", T,
    ),
    "electrode-second": Code(
        "stop", "One rod alone, not shown to be 25 ohms or less.", "It does too little.",
        "A second one, 6 ft or more away.", T,
    ),
    "electrode-near": Code(
        "stop", "Two rods stand nearer than 6 ft.", "They share the same earth.", "Drive it farther away.", T
    ),
    "electrode-closer": Code(
        "note", "Two rods stand nearer than twice their length.", "Farther apart they do better.",
        "Twice their length, where there is room.", T,
    ),
    "electrode-short": Code(
        "stop", "A rod is in the earth less than 8 ft.", "It ends in dry soil.", "A rod of 8 ft, driven whole.", T
    ),
    "electrode-inside": Code(
        "check", "A rod stands within a building.", "It would go through its slab or floor.", "Outside the wall.", T
    ),
    "electrode-wire": Code(
        "stop", "The conductor of an electrode is too small.", "It melts when it is needed.", "A larger one.", T
    ),
    "electrode-left": Code(
        "stop", "An electrode that is there is not joined to the system.",
        "All that are present are bonded together.", "Join it.", T,
    ),
    "building-off": Code(
        "check", "Nothing turns another building off where its feed comes in.",
        "Firemen and the next one in there look for it.", "A main in its panel, or a disconnect, there.", T,
    ),
    "service-attach": Code(
        "stop", "A service drop is held too low.", "10 ft at its lowest, the drip loop too.", "Higher, or a mast.", T
    ),
    "service-asks": Code(
        "check", "Of the service something is not said.", "The inspector asks for it.", "Say it.", T
    ),
    "service-lacks": Code(
        "stop", "The service lacks what it must have.", "It is not energised without.", "Put it in.", T
    ),
    "service-wire": Code(
        "stop", "The conductors of the service are too small.", "They are loaded beyond what they bear.",
        "A larger size.", T,
    ),
    "meter-height": Code(
        "check", "The meter stands at an unusual height.", "The utility reads it at eye height.", "4 to 6 ft.", T
    ),
}  # fmt: skip

finding = finder(CODES)
PRACTICE = "common practice, no source"
