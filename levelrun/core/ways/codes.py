"""Codes of findings about ways."""

from __future__ import annotations

from levelrun.core.findings import Code, finder

CODES: dict[str, Code] = {
    "pull-box-small": Code(
        "stop",
        "A box is too short for the wire that is pulled through it.",
        "The insulation is crushed at the bend.",
        "A box of the length that 314.28 asks.",
        "runs",
    ),
    "pull-box-unsaid": Code(
        "check",
        "Nobody has said which box stands between two pipes with large wire.",
        "It has to be long enough to bend it.",
        "Name a box of that size.",
        "runs",
    ),
    "body-marked": Code(
        "check",
        "Large wire through a body.",
        "Most are too short to bend it.",
        "One that is marked for it, or a sweep.",
        "pipe",
    ),
    "fire-stop": Code(
        "note",
        "A hole through a plate is sealed.",
        "Fire climbs through it from floor to floor.",
        "Caulk or foam that is made for it.",
        "runs",
    ),
    "roof-deck": Code(
        "note",
        "Cable or thin pipe in an attic stays clear of the roof deck.",
        "A roofer nails through it.",
        "1½ in under it, or heavy steel pipe.",
        "runs",
    ),
    "bend-room": Code(
        "note",
        "Room to bend a large wire before its lug.",
        "The lug twists, the strands break.",
        "Look before the pipe is set.",
        "runs",
    ),
    "span-unsaid": Code(
        "check",
        "Nobody has said how high a span hangs, and over what.",
        "A ladder or a lorry finds it.",
        "Tape its lowest point.",
        "runs",
    ),
    "span-low": Code(
        "stop", "A span hangs too low.", "A ladder or a lorry finds it.", "Higher, or under ground.", "runs"
    ),
    "way-empty": Code(
        "check",
        "The way has no legs yet.",
        "Nothing can be measured or bought.",
        "Walk it: type the first leg.",
        "runs",
    ),
    "way-short": Code(
        "check",
        "A circuit takes a way that does not get to its box.",
        "The length is a guess, and so is what is cut.",
        "Walk on to the box, or say that the way ends there.",
        "runs",
    ),
    "way-idle": Code(
        "note",
        "No circuit takes this way.",
        "What lies in it decides fill, cover and wire.",
        "Say which circuit takes it, or leave it as a spare.",
        "runs",
    ),
    "climb-unsaid": Code(
        "note",
        "A way lies over a ceiling or under a floor and begins or ends at a box in the wall, with no leg between.",
        "The feet up and down, where they are not in the tape, are cut short in the panel.",
        "Nothing where they are in it; else a leg up or down.",
        "runs",
    ),
    "riser-missing": Code(
        "check",
        "A way goes from a panel or box over ground straight into the earth.",
        "The feet down and up are neither cut nor guarded.",
        "A riser at that end.",
        "runs",
    ),
    "open-end": Code(
        "check",
        "The last leg ends in no box, panel or equipment.",
        "A length without an end is a guess.",
        "Say what stands at the end.",
        "runs",
    ),
    "method-not-allowed": Code(
        "stop",
        "The method may never be used in this place.",
        "Wrong pipe or cable fails inspection, or the jacket fails.",
        "Take an allowed method.",
        "runs",
    ),
    "method-condition": Code(
        "check",
        "The method is allowed here only with something that is not recorded.",
        "The condition is what keeps the cable whole.",
        "Record that it is met, or take a method without the condition.",
        "runs",
    ),
    "cover-short": Code(
        "stop",
        "The trench is too shallow for what lies in it.",
        "A spade finds it.",
        "Dig, or change the pipe.",
        "runs",
    ),
    "cover-missing": Code(
        "check",
        "No depth is taped for a buried leg.",
        "Depth is what the inspector measures.",
        "Enter the depth.",
        "runs",
    ),
    "fill-over": Code(
        "stop", "More wire than the pipe may hold.", "Heat, and skinned insulation.", "A size up.", "pipe"
    ),
    "ampacity-short": Code(
        "stop",
        "The wire as it lies carries less than its breaker or its load.",
        "Heat, bundling or cool terminals take amperes away; the wire overheats.",
        "Bigger wire.",
        "runs",
    ),
    "heat-unsaid": Code(
        "check",
        "The wire is enough in mild air and too small in the heat that is taken for its place.",
        "Outside walls differ by climate and by side; a 60 °C cable loses a fifth at 40 °C.",
        "Say how hot it gets, or a size up.",
        "runs",
    ),
    "pipe-under-note": Code(
        "stop",
        "A feeder's pipe is smaller than the authority here wants.",
        "It fails inspection.",
        "A size up.",
        "runs",
    ),
    "ribbon": Code(
        "check",
        "Ribbon over every trench is asked here.",
        "A spade meets the ribbon first.",
        "Record the ribbon.",
        "runs",
    ),
    "ground-small": Code(
        "stop",
        "A cable's ground does not grow with wires that were upsized for drop.",
        "Upsized hots want an upsized ground.",
        "Pipe with single wires, or a cable with a whole ground.",
        "runs",
    ),
    "sleeve-tight": Code(
        "stop", "The cable does not pass through its sleeve.", "It cannot be pulled in.", "A bigger sleeve.", "runs"
    ),
    "jam": Code(
        "check", "Three wires may wedge side by side in a bend.", "The pull locks.", "Another size of pipe.", "pipe"
    ),
    "size-unknown": Code(
        "stop", "The size is not made, or missing.", "No numbers can be had.", "Choose a listed size.", "runs"
    ),
    "bends-over": Code(
        "stop", "More than 360° of bend between pull points.", "The wire will not pull.", "Add a pull point.", "pipe"
    ),
    "roof-heat": Code(
        "check",
        "Nobody has said how far a pipe on a roof is off it.",
        "Flat on a sunny roof its wires run far hotter than the air.",
        "Blocks under it, or wire for the heat.",
        "runs",
    ),
    "pull-hard": Code(
        "check",
        "A pull is harder than hands, wires or insulation bear.",
        "The wire skins, stretches, or stops half way.",
        "A pull point half way, a wider sweep, a bigger pipe.",
        "pipe",
    ),
    "box-needed": Code(
        "stop",
        "Cable and pipe wires meet without a box.",
        "A change of wiring needs a box that stays reachable.",
        "Put a box there.",
        "runs",
    ),
    "pull-point-buried": Code(
        "stop", "A box or conduit body stands under ground.", "It must stay reachable.", "Use a sweep.", "runs"
    ),
    "wire-smaller": Code(
        "stop", "A leg is wired smaller than its circuit.", "The thin part burns.", "Same gauge all the way.", "runs"
    ),
    "wires-short": Code(
        "stop",
        "A cable has fewer wires than the circuit needs.",
        "A neutral or a hot is missing.",
        "The next cable.",
        "runs",
    ),
    "whip-long": Code(
        "check",
        "A whip of more than 6 ft.",
        "Beyond 6 ft other support and grounding rules begin.",
        "Shorten it.",
        "runs",
    ),
    "expansion": Code(
        "check",
        "A straight of plastic pipe outdoors moves more than ¼ in.",
        "It pulls out of its box.",
        "An expansion fitting.",
        "pipe",
    ),
    "joint-missing": Code(
        "check", "Two kinds of pipe meet with nothing between.", "They want a fitting.", "Name the coupling.", "runs"
    ),
    "turn-back": Code(
        "check",
        "A leg goes straight back on the one before.",
        "Probably a slip of the pencil.",
        "Look at it again.",
        "runs",
    ),
    "path-short": Code(
        "check",
        "The path taped is shorter than the boxes stand apart.",
        "One reading is wrong, and the cable is cut from it.",
        "Tape it again, or move the box on the plan.",
        "runs",
    ),
    "height-closure": Code(
        "check",
        "The heights taped do not meet.",
        "One reading is wrong, and the pipe is cut from it.",
        "Tape it again.",
        "runs",
    ),
    "marks-first": Code(
        "note",
        "There is digging on this way.",
        "Other services lie in the yard.",
        "Call for marks, wait, then dig.",
        "runs",
    ),
    "way-none": Code(
        "check",
        "The frame gives no way to a box.",
        "Its cable cannot be measured or bought, and somebody opens a wall.",
        "Open what is closed, another level, a box on another wall, or walk it.",
        "runs",
    ),
    "way-apart": Code(
        "check",
        "A cable to another building whose way nobody has walked.",
        "Straight across is shorter than any trench with its risers.",
        "Walk its way.",
        "runs",
    ),
    "way-long": Code(
        "check",
        "One piece of cable is longer than the coil that is sold.",
        "A cable is never spliced to fit.",
        "Off a reel, or a box on the way.",
        "runs",
    ),
    "pipe-closed": Code(
        "check",
        "Pipe is drawn through a wall that is closed.",
        "A stick does not go in there.",
        "Open the wall, stay on its face, or take what bends.",
        "runs",
    ),
    "place-asked": Code(
        "check",
        "A way has legs of which nobody said where they lie.",
        "What may go there, its wire and what holds it hang on the place.",
        "Say it: in a stud wall, an attic, a crawl space, along a wall, in a trench.",
        "runs",
    ),
    "wall-asked": Code(
        "note",
        "A cable goes through a wall of an old building.",
        "In a finished wall nobody bores: it is fished up or down a bay, or a strip of the wall is opened.",
        "Say that it is fished, or that the wall is open.",
        "runs",
    ),
    "fished-across": Code(
        "check",
        "A cable is fished across studs.",
        "Behind the board there is no hole in them.",
        "A strip of the wall open, or up and over, or under the floor.",
        "runs",
    ),
    "way-fished": Code(
        "note",
        "A cable is fished through what is closed.",
        "Nothing holds it there, which is allowed there alone.",
        "A box with its own clamp at the end.",
        "runs",
    ),
    "hole-large": Code(
        "stop",
        "A hole is too large for the stud that it goes through.",
        "The stud no longer bears what stands on it.",
        "Another way, deeper studs, or a stud shoe.",
        "runs",
    ),
    "holes-many": Code(
        "check",
        "Many holes in one stud.",
        "Together they weaken it.",
        "Take a cable another way, or ask.",
        "runs",
    ),
    "hole-plates": Code(
        "note",
        "Holes near the face of a stud want steel plates.",
        "A drywall screw finds the cable.",
        "A plate over each.",
        "runs",
    ),
    "hole-grommets": Code(
        "note",
        "Cable through metal studs.",
        "The edge of the hole cuts the jacket.",
        "A listed bushing in each hole.",
        "runs",
    ),
    "bend-tight": Code(
        "check",
        "A cable bends tighter round a corner than it bears.",
        "Its insulation is crushed inside the jacket.",
        "A wider curve, or over the top.",
        "runs",
    ),
    "joist-chart": Code(
        "check",
        "Cable through made joists.",
        "A hole in the wrong place ruins an I-joist.",
        "The maker's chart.",
        "runs",
    ),
    "whole-pull": Code(
        "note",
        "Pipe is complete between pull points before wire goes in.",
        "Threading piece by piece skins insulation and hides a bad joint; many do it, the code does not.",
        "Dry-fit, measure, glue, then pull.",
        "pipe",
    ),
}

finding = finder(CODES)
