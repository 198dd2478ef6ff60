"""Sentences about buying: how a row is bought, what is on the truck, what things cost, what is taken instead."""

from __future__ import annotations

import re
from functools import lru_cache

from levelrun.core.buying.prices import shipped
from levelrun.core.circuits.loads import HOTS
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import INSULATIONS, wire_sizes
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.words import COUNTS

USUAL = "NM-B"  # what a cable is where only its wires are said
MONEY = re.compile(r"\$\s*(?P<n>\d+(?:\.\d+)?)")
COUNTED = {**COUNTS, "a": 1, "an": 1}
_N = "|".join((r"\d+", *COUNTED))
COUNT = re.compile(rf"(?P<n>{_N})\s*(?:x|×|of|coils? of)?\s+(?=\d)", re.IGNORECASE)
COILS = ("coils", "coil", "reel", "reels", "rolls", "roll")
UNSIZED = re.compile(rf"(?:{_N})\s+(?P<word>coils?|reels?|rolls?)\b(?!\s+of\s+\d+\s*(?:'|ft))", re.IGNORECASE)
COLOURS = (*HOTS, "white", "green")


@lru_cache(maxsize=8)
def known_items(book: Codebook) -> dict[str, str]:
    """Everything that ships with a price, wire in its colours, cable also by its wires alone: what may be typed, and
    what it stands for."""
    found = {key: key for key in shipped(book)}
    for key in shipped(book):
        size, _, kind = key.partition(" ")
        if kind == USUAL:
            found |= {size: key, size.replace("-", "/"): key}
    for size in wire_sizes(book):
        for kind in INSULATIONS[:2]:
            for metal in ("", " al"):
                found |= {f"{size} {kind}{metal} {colour}": f"{size} {kind}{metal} {colour}" for colour in COLOURS}
    return found


def _items(reader: SceneReader) -> dict[str, str]:
    job = reader.scene.job
    own = [*(p.item for p in job.prices), *(s.item for s in job.stock), *(w.item for w in job.wants)]
    return {**known_items(reader.scene.book), **{name: name for name in own}}


def _item(reader: SceneReader, what: str) -> str:
    """A thing by its name, or any name in double quotes."""
    if reader.text[reader.pos : reader.pos + 2].lstrip()[:1] == '"':
        return reader.token(what)
    items = _items(reader)
    return items[reader.need(items, what)]


def _supplier(reader: SceneReader) -> str:
    """at the supply house; empty where none is named."""
    if reader.phrase(["at the", "at"]) is None:
        return ""
    job = reader.scene.job
    known = {o.supplier for own in shipped(reader.scene.book).values() for o in own}
    known |= {price.supplier for price in job.prices}
    reader.expect([*sorted(known), '"a supplier"'])
    if (word := reader.phrase(known)) is not None:
        return next(name for name in known if name.lower() == word.lower())
    return reader.token("a supplier by its name, a new one in double quotes")


def buy(reader: SceneReader) -> Said:
    """buy 2 x 250' of 12-2 [and 1 x 100'] [at SUPPLIER]; buy 12-2 by the foot; buy 12-2 as is cheapest; buy ITEM for
    DAY [due DAY]."""
    packs: dict[float, int] = {}
    reader.expect(["1 x 250' of 12-2", "12-2 by the foot", "12-2 as is cheapest"])
    start = reader.pos
    item = ""
    items = _items(reader)
    word = reader.phrase(items)
    if word is None:
        packs = _packs(reader)
        reader.need(("of",), "of and what")
        item = _item(reader, "what is bought")
    else:
        item = items[word]
        if reader.text[reader.pos :].lstrip()[:1] in ("'", "′"):  # 12' of … was a length
            reader.pos = start
            packs = _packs(reader)
            reader.need(("of",), "of and what")
            item = _item(reader, "what is bought")
    edit: dict[str, object] = {"op": "buy", "item": item}
    if packs and reader.phrase(["and", "+"]) is not None:
        packs = _packs(reader, packs)
    if packs:
        edit |= {"packs": [{"size": size, "count": count} for size, count in packs.items()], "by_foot": False}
    while not reader.over():
        _how(reader, edit)
    if len(edit) == 2:
        raise reader.fail("by the foot, as is cheapest, at a supplier, instead, for a day, due a day")
    return Said([edit])


def _sized(reader: SceneReader, such_as: str) -> None:
    """Refuses a coil of no length."""
    reader.skip()
    unsized = UNSIZED.match(reader.text, reader.pos)
    if unsized is not None:
        word = unsized["word"].rstrip("s").lower()
        raise reader.refuse(f"how long is the {word}? say it in feet: {such_as}", reader.pos)


def _packs(reader: SceneReader, had: dict[float, int] | None = None) -> dict[float, int]:
    """Coils by their feet and how many of each, with those that were said before."""
    packs = dict(had or {})
    while True:
        _sized(reader, "2 x 250' of 12-2")
        count = reader.take(COUNT)
        size = round(reader.length() / 12, 3)
        said = count["n"].lower() if count else "1"
        packs[size] = packs.get(size, 0) + int(COUNTED.get(said, said))
        reader.phrase(COILS)
        if reader.phrase(["and", "+"]) is None and reader.text[reader.pos :].lstrip()[:1] != "+":
            return packs
        reader.skip()
        reader.pos += reader.text[reader.pos : reader.pos + 1] == "+"


HOW = ("by the foot", "as is cheapest", "instead", "for", "due", "at")


def _how(reader: SceneReader, edit: dict[str, object]) -> None:
    reader.expect(HOW)
    start = reader.pos
    word = reader.phrase(HOW)
    if word == "by the foot":
        edit |= {"by_foot": True, "packs": []}
    elif word == "as is cheapest":
        edit |= {"by_foot": False, "packs": [], "supplier": "", "instead": "", "needed_on": "", "due_on": ""}
    elif word == "instead":
        edit["instead"] = _item(reader, "what is taken instead")
    elif word in ("for", "due"):
        edit["needed_on" if word == "for" else "due_on"] = reader.day()
    elif word == "at":
        reader.pos = start
        edit["supplier"] = _supplier(reader)
    else:
        raise reader.fail("by the foot, as is cheapest, at a supplier, instead, for a day, due a day")


def have(reader: SceneReader) -> Said:
    """have 60' of 14-2; have 12 of single-18; have 0 of 14-2: none of it any more."""
    _sized(reader, "60' of 12-2")
    reader.phrase(("a", "an"))
    reader.skip()
    start = reader.pos
    whole = re.match(r"(?P<n>\d+)\s+of\b", reader.text[reader.pos :])
    if whole is not None:
        reader.pos += whole.end("n")
        amount = float(whole["n"])
    else:
        amount = round(reader.length() / 12, 3)
        reader.phrase(("piece", "end", *COILS))
    reader.need(("of",), "of and what")
    item = _item(reader, "what is on the truck")
    reader.phrase(("on the truck", "in the truck", "left", "on hand"))
    cut = any(o.unit == "ft" for o in shipped(reader.scene.book).get(_priced(item), ()))
    if cut and whole is not None and amount:
        raise reader.refuse(f"{item} goes by the foot: say {amount:g}'", start, [f"{amount:g}' of {item}"])
    return Said([{"op": "have", "item": item, "amount": amount}])


def price(reader: SceneReader) -> Said:
    """price 12-2 250' $119 at the supply house [on DAY]; price 12-2 $0.95 a foot at …; price ITEM [10 pieces] $8 at
    …; price ITEM out 14 days at …."""
    reader.phrase(["of"])
    return _offer(reader, _item(reader, "what it is a price of"), None)


def _offer(reader: SceneReader, item: str, pack: float | None) -> Said:
    """What follows a thing that costs something: its pack and the dollars, either first, the supplier, the day."""
    offers = shipped(reader.scene.book).get(_priced(item), ())
    cut = any(offer.unit == "ft" for offer in offers)
    edit: dict[str, object] = {"op": "price", "item": _priced(item), "unit": "ft" if cut else "each", "pack": 1.0}
    reader.skip()
    reader.expect(["250' $119", "$1.20"])
    if pack is not None:
        edit["pack"] = pack
    elif MONEY.match(reader.text, reader.pos) is None:
        edit["pack"] = _pack(reader, cut)
    reader.skip()
    reader.expect(["$ and dollars"])
    money = MONEY.match(reader.text, reader.pos)
    if money is None:
        raise reader.fail("$ and dollars, as $119")
    if float(money["n"]) <= 0:
        raise reader.refuse(f"${money['n']}: allowed: over 0", reader.pos)
    reader.pos = money.end()
    edit["dollars"] = float(money["n"])
    if reader.phrase(["a foot", "each", "a piece"]) is None and reader.phrase(["for", "a"]) is not None:
        edit["pack"] = _pack(reader, cut)
    if reader.phrase(["out"]) is not None:
        edit |= {"out": True, "days": int(reader.number("days until it is there", 0, 400))}
        reader.phrase(["days", "day"])
    supplier = _supplier(reader)
    if not supplier:
        reader.expect(["at the supply house"])
        raise reader.fail("at and a supplier")
    edit["supplier"] = supplier
    if reader.phrase(["on"]) is not None:
        edit["on"] = reader.day()
    return Said([edit])


def _pack(reader: SceneReader, cut: bool) -> float:
    """How much is sold at once: feet of what is cut, else pieces."""
    if not cut:
        pieces = reader.number("pieces in a pack", 1, 10_000)
        reader.phrase(["pieces", "piece"])
        return pieces
    feet = round(reader.length() / 12, 3)
    reader.phrase(COILS)
    return feet


def _priced(item: str) -> str:
    """The name under which wire of any colour is priced."""
    parts = item.split()
    if parts and parts[-1] in COLOURS and len(parts) >= 3:
        return f"{parts[0]} wire{' al' if 'al' in parts else ''}"
    return item


def swap(reader: SceneReader) -> Said:
    """swap ITEM for ITEM: what is taken instead."""
    item = _item(reader, "what is not taken")
    reader.need(("for",), "for and what is taken instead")
    return Said([{"op": "buy", "item": item, "instead": _item(reader, "what is taken instead")}])


def wanted(reader: SceneReader) -> Said | None:
    """Get 250' of 12-2; order 12-2 at the supply house; I need two 250' coils of 12-2."""
    reader.phrase(("i", "we"))
    if reader.phrase(("get", "order", "need", "pick up")) is None:
        return None
    reader.phrase(("some", "more"))
    return buy(reader)


def had(reader: SceneReader) -> Said | None:
    """We have 62' of 14-2 on the truck; I got 62' of 14-2 left."""
    if reader.phrase(("i", "we")) is None or reader.phrase(("have", "got", "have got", "still have")) is None:
        return None
    return have(reader)


def priced(reader: SceneReader) -> Said | None:
    """12-2 is $119 for 250' at the supply house; a 250' coil of 12-2 costs $119 at the supply house."""
    coil = None
    reader.phrase(("a", "an"))
    if reader.sees_length():
        start = reader.pos
        coil = round(reader.length() / 12, 3)
        reader.phrase(COILS)
        if reader.phrase(["of"]) is None:
            reader.pos, coil = start, None
    items = _items(reader)
    word = reader.phrase(items)
    if word is None or reader.phrase(("is", "costs", "cost", "goes for", "was")) is None:
        return None
    reader.skip()
    if MONEY.match(reader.text, reader.pos) is None:
        return None
    return _offer(reader, items[word], coil)


VERBS = {"buy": buy, "have": have, "price": price, "swap": swap}
SPOKEN = (wanted, had, priced)
