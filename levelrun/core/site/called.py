"""What rooms and buildings are called, and what they are for by it."""

from __future__ import annotations

import re

# Buildings as they are called, and of which kind they are.
BUILDINGS = {
    **dict.fromkeys(("house", "bungalow", "cottage", "farmhouse", "ranch house", "duplex"), "house"),
    **dict.fromkeys(
        ("chicken coop", "coop", "tool shed", "garden shed", "woodshed", "playhouse", "gazebo", "kennel"),
        "shed",
    ),
    **dict.fromkeys(("stable", "carport", "machine shed", "pole barn"), "shop"),
    **dict.fromkeys(("bunkhouse", "tiny house", "guest cottage"), "cabin"),
    "building": "shed", "outbuilding": "shed", "shed": "shed", "studio": "shed",
    "greenhouse": "shed", "pump house": "shed", "well house": "shed", "shop": "shop", "workshop": "shop",
    "garage": "shop",
    "detached garage": "shop", "barn": "shop", "cabin": "cabin", "guest house": "cabin",
}  # fmt: skip
USES = {
    "living": "common", "common": "common", "great": "common", "family": "common", "den": "common",
    "kitchen": "kitchen", "dining": "dining", "bed": "bedroom", "bunk": "bedroom", "bedroom": "bedroom",
    "bath": "bath", "toilet": "bath", "washroom": "bath", "hall": "hall", "entry": "hall", "stair": "stairs",
    "stairs": "stairs", "closet": "closet", "pantry": "storage", "laundry": "laundry", "mud": "laundry",
    "utility": "utility", "mechanical": "utility", "garage": "garage", "carport": "garage", "shop": "shop",
    "kiln": "shop", "throwing": "shop", "store": "storage", "storage": "storage", "shed": "storage",
    "cold": "storage", "porch": "porch", "deck": "porch", "crawl": "crawl", "basement": "basement",
    "attic": "attic", "loft": "bedroom", "pump": "pump", "office": "bedroom",
    "bathroom": "bath", "powder": "bath", "lavatory": "bath", "ensuite": "bath", "hallway": "hall", "foyer": "hall",
    "corridor": "hall", "landing": "hall", "stairway": "stairs", "stairwell": "stairs", "staircase": "stairs",
    "wardrobe": "closet", "study": "bedroom", "nursery": "bedroom", "sleeping": "bedroom", "bunkroom": "bedroom",
    "workshop": "shop", "mudroom": "laundry", "lounge": "common", "sitting": "common", "media": "common",
    "game": "common", "sunroom": "common", "breakfast": "dining", "nook": "dining", "kitchenette": "kitchen",
    "patio": "porch", "balcony": "porch", "veranda": "porch", "crawlspace": "crawl", "cellar": "basement",
    "boiler": "utility", "furnace": "utility", "barn": "storage", "greenhouse": "storage",
}  # fmt: skip
USE_WORDS = ("common", "kitchen", "dining", "bedroom", "bath", "hall", "stairs", "closet", "laundry", "utility",
             "garage", "shop", "storage", "porch", "crawl", "basement", "attic", "pump")  # fmt: skip


def use_of(name: str) -> str:
    """What a room is for, from the words of its name, the last that says it: a hall closet is a closet, a bedroom 2
    a bedroom. A common room where no word says."""
    for word in reversed(re.split(r"[\s\d-]+", name.lower())):
        if word in USES:
            return USES[word]
    return "common"
