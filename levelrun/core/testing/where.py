"""Where it may be: faults in the order of how well they explain what was read, each with the reading it would give,
and the next reading that tells most.

Every fault is held equally likely before a reading; after it, by the error of the window (a normal law with a quarter
of the window as its deviation: common practice, no source). No shares are told: they would be invented.
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

from levelrun.core.testing.faults import LOOSE_OHMS, Fault, title
from levelrun.core.testing.reading import OVER_LIMIT, Probe, read
from levelrun.core.testing.wired import HOT_C, State, Wired

NEAR = 3.0  # faults whose log-likelihood is so near to the best one are told apart by the next reading
MOST_TOLD, APART = 8, 2.0
LOOSE = ("loose_neutral", "loose_hot")
SPOKEN = {"hot": "line", "hot2": "second line"}


@dataclass(frozen=True, kw_only=True)
class Taken:
    """A reading that was taken: its probe, its value (1 or 0 for a word), how far it may be off."""

    probe: Probe
    value: float
    error: float


@dataclass(frozen=True, kw_only=True)
class Suspect:
    """A fault with what it would read where the last reading was taken: from, to; in words; fits: how well it
    explains all readings, the best 0."""

    key: str
    title: str
    low: float
    high: float
    text: str
    fits: float


@dataclass(frozen=True, kw_only=True)
class NextReading:
    """The reading that tells most: its probe, in words, and what it would be by each of the faults still in doubt."""

    probe: str
    text: str
    tells: list[str]


def error_of(kind: str, low: float | None, high: float | None, value: float) -> float:
    """How far a reading may be off: a quarter of its window, never under what the meter itself may be off."""
    if kind in ("trips", "works", "dies", "word"):
        return 0.05
    least = {"volts": 0.3, "ohms": 0.05, "megohms": 0.2}[kind]
    window = (high - low) / 4 if low is not None and high is not None and kind != "megohms" else 0.0
    return max(least, min(window, 3.0), 0.01 * abs(value) if math.isfinite(value) else 0.0)


def explained(wired: Wired, fault: Fault, taken: Sequence[Taken]) -> tuple[float, Fault]:
    """How well a fault explains what was read, as a log-likelihood, with the ohms that do it best."""
    if fault.kind not in LOOSE:
        return _fit(wired, [fault], taken)
    best = _fit(wired, [replace(fault, ohms=ohms) for ohms in LOOSE_OHMS], taken)
    near = [replace(fault, ohms=best[1].ohms * times) for times in (0.85, 0.92, 1.08, 1.17)]
    return max(best, _fit(wired, near, taken), key=lambda item: item[0])


def _fit(wired: Wired, choices: Sequence[Fault], taken: Sequence[Taken]) -> tuple[float, Fault]:
    found = [(sum(_log(read(wired, item.probe, one), item) for item in taken), one) for one in choices]
    return max(found, key=lambda item: item[0])


def _log(expected: float, item: Taken) -> float:
    if item.probe.kind == "megohms":
        off = abs(math.log10(max(expected, 1e-3)) - math.log10(max(item.value, 1e-3))) / 0.3
    elif not math.isfinite(expected) or not math.isfinite(item.value):
        off = 0.0 if math.isfinite(expected) == math.isfinite(item.value) else 30.0
    else:
        off = abs(expected - item.value) / item.error
    return -0.5 * min(off, 30.0) ** 2


def suspects(
    wired: Wired, faults: Iterable[Fault], taken: Sequence[Taken], names: Mapping[str, str]
) -> list[Suspect]:
    """Faults, the likeliest first; of equals in the order of how often they are met (`TITLES`, common practice)."""
    if not taken:
        return []
    ranked = sorted(
        ((*explained(wired, fault, taken), n) for n, fault in enumerate(faults)), key=lambda item: (-item[0], item[2])
    )
    best = ranked[0][0] if ranked else 0.0
    last = taken[-1].probe
    return [_told(wired, fault, last, best - fits, names) for fits, fault, _ in ranked[:MOST_TOLD]]


def _told(wired: Wired, fault: Fault, probe: Probe, fits: float, names: Mapping[str, str]) -> Suspect:
    cold = read(wired, probe, fault)
    warm = read(wired, replace(probe, state=_warm(probe.state)), fault)
    low, high = min(cold, warm), max(cold, warm)
    return Suspect(
        key=fault.key,
        title=title(fault, dict(names)),
        low=min(low, OVER_LIMIT),
        high=min(high, OVER_LIMIT),
        text=reading_text(probe.kind, low, high),
        fits=fits,
    )


def _warm(state: State) -> State:
    return replace(state, celsius=HOT_C)


def reading_text(kind: str, low: float, high: float) -> str:
    """A reading in words: 5.9 to 7.2 V; open; does not trip."""
    if kind in ("trips", "works", "dies"):
        yes = {"trips": "trips", "works": "works", "dies": "goes dead with it"}[kind]
        return yes if low > 0.5 else f"not: {yes}"
    unit = {"volts": "V", "ohms": "Ω", "megohms": "MΩ"}[kind]
    if not math.isfinite(high) or (kind == "ohms" and high >= OVER_LIMIT):
        return "open: no path"
    digits = 2 if kind == "ohms" or (kind == "megohms" and high < 10) else 1 if high < 100 else 0
    a, b = f"{low:.{digits}f}", f"{high:.{digits}f}"
    return f"{a} {unit}" if a == b else f"{a} to {b} {unit}"


def grouped(values: Sequence[float], kind: str) -> list[int]:
    """Readings that a meter tells apart: the number of the group of each."""
    if kind == "megohms":
        values = [math.log10(max(v, 1e-3)) for v in values]
    order = sorted(range(len(values)), key=lambda n: values[n])
    found = [0] * len(values)
    group, last = 0, None
    for n in order:
        value = values[n]
        error = 0.3 if kind == "megohms" else error_of(kind, None, None, value)
        if last is not None and (value - last > APART * error or math.isinf(value) != math.isinf(last)):
            group += 1
        found[n], last = group, value
    return found


def tells_most(
    wired: Wired, faults: Sequence[Fault], taken: Sequence[Taken], probes: Sequence[Probe], names: Mapping[str, str]
) -> NextReading | None:
    """The probe by which the faults still in doubt fall into the most even groups (the least entropy is left)."""
    scored = sorted((explained(wired, fault, taken) for fault in faults), key=lambda item: -item[0])
    doubt = [fault for fits, fault in scored if scored[0][0] - fits <= NEAR][:12]
    if len(doubt) < 2:
        return None
    done = {item.probe.key for item in taken}
    best: tuple[float, Probe, list[int], list[float]] | None = None
    for probe in probes:
        if probe.key in done:
            continue
        values = [read(wired, probe, fault) for fault in doubt]
        groups = grouped(values, probe.kind)
        sizes = Counter(groups).values()
        left = sum(size * math.log2(size) for size in sizes) / len(groups)
        if best is None or left < best[0] - 1e-9:
            best = (left, probe, groups, values)
    if best is None or len(set(best[2])) < 2:
        return None
    _, probe, groups, values = best
    told = []
    for group in sorted(set(groups), key=lambda g: -groups.count(g)):
        own = [n for n, g in enumerate(groups) if g == group]
        shown = reading_text(probe.kind, min(values[n] for n in own), max(values[n] for n in own))
        told.append(f"{shown}: {', '.join(title(doubt[n], dict(names)) for n in own[:3])}")
    return NextReading(probe=probe.key, text=probe_text(probe, names), tells=told)


def probe_text(probe: Probe, names: Mapping[str, str]) -> str:
    """A reading in words: neutral to ground at C-1, loaded."""
    box = names.get(probe.a[0], probe.a[0])
    if probe.kind == "trips":
        return f"press the test button at {box}"
    if probe.kind == "dies":
        return f"is all behind {box} dead while it is tripped?"
    if probe.kind == "works":
        return f"does {box} work from every position?"
    other = names.get(probe.b[0], probe.b[0])
    a, b = SPOKEN.get(probe.a[1], probe.a[1]), SPOKEN.get(probe.b[1], probe.b[1])
    ends = f"{a} to {b} at {box}" if probe.a[0] == probe.b[0] else f"{a} at {box} to {b} at {other}"
    how = "dead, breaker off" if not probe.state.on else "loaded" if probe.state.loaded else "on"
    return f"{ends}, {'ohms' if probe.kind == 'ohms' else 'insulation' if probe.kind == 'megohms' else how}"
