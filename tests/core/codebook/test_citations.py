"""Every citation is of a section that stands in the list of its edition; no stop cites another country's book."""

from __future__ import annotations

import re
from collections.abc import Iterator

import pytest
from fastapi.testclient import TestClient

from levelrun.core.codebook import load
from levelrun.core.plan import plan
from levelrun.samples import SAMPLES, sample
from tests.conftest import built, edited, one_way
from tests.core.boxes.test_rules import CASES as OF_BOXES
from tests.core.circuits.test_circuit_rules import CASES as OF_CIRCUITS
from tests.core.ways.test_plan_way import CASES as OF_WAYS

TITLES = {row["section"]: row for row in load("us-2023").table("section-titles").rows}
OWN = ("common practice", "no source", "local note", "cable catalogue", "local rule", "shop habits", "OSHA", "IEEE")
# sections of which only some items are judged
PARTLY = {
    "110.26",
    "210.12",
    "680.9",
    "210.52",
    "210.70",
    "300.4",
    "406.4",
    "406.9",
    "IRC R314",
    "210.8",
    "IRC R502.8",
    "IRC R602.6",
}
BASE = re.compile(r"(?:table |IRC )?(?:\d{3}\.\d+|R[56]02\.\d|R\d{3})")


def sections_of(citation: str) -> Iterator[str]:
    """The sections that a citation names, without their items: `210.8(A)(5), 406.9` gives 210.8 and 406.9."""
    for part in re.split(r"[;,] | and its table| to | for stairs", citation):
        part = re.sub(r"\([^)]*\)", "", part).strip()
        if not part or any(part.startswith(own) for own in OWN) or re.match(r"notes? \d", part):
            continue
        if part.startswith(("ch. 9", "Article")):
            yield re.sub(r" informational.*", "", part)
        elif match := BASE.search(part):
            found = match.group(0).removeprefix("table ")
            found = found.removeprefix("IRC ")
            yield f"IRC {found}" if found.startswith("R") else found
        elif re.match(r"\d{3}$", part):
            yield part


def citations(rules: str) -> set[tuple[str, str]]:
    """Code and citation of whatever is said of the samples and of all cases under a rule set."""
    jobs = [sample(key) for key in SAMPLES] + list(OF_CIRCUITS.values()) + [built(text) for text in OF_BOXES.values()]
    jobs += [one_way(text, **circuit) for text, circuit in OF_WAYS.values()]
    found: set[tuple[str, str]] = set()
    for job in jobs:
        planned = plan(edited(job, {"op": "set_job", "set": {"rules": rules}}))
        found |= {(item.code, item.section) for item in planned.findings}
        found |= {(figure.key, figure.rule) for way in planned.ways for leg in way.legs for figure in leg.figures}
    return found


@pytest.mark.parametrize("rules", ["us-2023", "us-2020"])
def test_every_section_that_is_cited_stands_in_the_list_of_its_edition(rules: str) -> None:
    year = rules.removeprefix("us-")
    unknown = {
        (code, section)
        for code, citation in citations(rules)
        for section in sections_of(citation)
        if section not in TITLES or year not in TITLES[section]["editions"].split()
    }
    assert not unknown


def test_the_list_holds_nothing_that_nobody_cites_twice() -> None:
    assert len(TITLES) == len(load("us-2023").table("section-titles").rows)
    for row in TITLES.values():
        assert row["title"] and 50 <= int(row["sure"]) <= 100 and set(row["editions"].split()) <= {"2020", "2023"}


def test_under_another_countrys_rules_no_stop_cites_this_list() -> None:
    book = load("ca-2021")
    for code, citation in citations("ca-2021"):
        cited = [section for section in sections_of(citation) if section in TITLES]
        own = citation.startswith(("CEC", "common practice", "not covered", "IRC", "NBC")) or "CEC" in citation
        assert own or not cited, (code, citation)
    assert book.own == "CEC"


@pytest.mark.parametrize(
    ("citation", "sections"),
    [
        ("210.8(A)(5), 406.9", ["210.8", "406.9"]),
        ("table 220.55", ["220.55"]),
        ("IRC R314.3", ["IRC R314"]),
        ("common practice, no source", []),
        ("ch. 9 table 1", ["ch. 9 table 1"]),
        ("999.9(Z)", ["999.9"]),
    ],
)
def test_citations_are_read(citation: str, sections: list[str]) -> None:
    assert list(sections_of(citation)) == sections


@pytest.mark.parametrize(("rules", "own"), [("us-2023", "230.71"), ("ca-2021", "not covered by CA 2021")])
def test_what_is_not_judged_is_told_with_whose_section_it_is(client: TestClient, rules: str, own: str) -> None:
    found = client.get(f"/api/rules/{rules}/not-judged").json()
    assert len(found) > 14 and found[0]["section"].startswith(own)
    spoken = (
        {base for _, citation in citations(rules) for base in sections_of(citation)} if rules == "us-2023" else set()
    )
    silent = [item["topic"] for item in found if set(sections_of(item["section"])) & spoken - PARTLY]
    assert not silent, "what is judged after all does not stand in the list"
