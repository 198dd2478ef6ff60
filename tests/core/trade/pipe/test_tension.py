"""The pull in space against a numerical integration of the equation of the rope by scipy's solver.

dT/ds = w·(t·z) + f·|w·z⊥ − T·κ·n| (equilibrium of a rope that slides in a pipe): t along it, n to the middle of the
bend. The solver integrates along the length; the code steps by the angle turned.
"""

from __future__ import annotations

import math
import time

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import solve_ivp

from levelrun.core.trade.pipe.tension import Piece, climb_in, pieces_of, reverse_of, tension
from tests.core.trade.pipe.paths import Points, path


def slope(piece: Piece, s: float, pull: float, w: float, friction: float) -> float:
    """dT/ds so far into a piece; a rope that is slack and would be pushed stays slack."""
    ahead, inward, radius = np.array(piece.ahead), np.array(piece.inward), piece.radius_in
    along, press = ahead, np.zeros(3)
    if radius:
        c, d = math.cos(s / radius), math.sin(s / radius)
        along, press = ahead * c + inward * d, (inward * c - ahead * d) * max(pull, 0.0) / radius
    across = w * (np.array([0, 0, 1.0]) - along * along[2]) - press
    found = w * along[2] + friction * float(np.linalg.norm(across))
    return found if pull > 0 or found > 0 else 0.0


def integrated(pieces: list[Piece], weight: float, friction: float) -> float:
    """Pounds at the pulled end."""
    pull, w = 0.0, weight / 12
    for piece in pieces:
        if not piece.radius_in:
            pull = max(pull + slope(piece, 0, max(pull, 1e-9), w, friction) * piece.length_in, 0.0)
            continue
        found = solve_ivp(
            lambda s, y, own=piece: [slope(own, s, y[0], w, friction)], [0, piece.length_in], [pull],
            rtol=1e-8, atol=1e-9, max_step=piece.length_in / 60,
        )  # fmt: skip
        pull = max(float(found.y[0, -1]), 0.0)
    return pull


@settings(max_examples=25)
@given(
    st.lists(st.tuples(st.integers(0, 1), st.sampled_from([-1, 1]), st.floats(24, 400)), min_size=1, max_size=7),
    st.floats(3.5, 24),
    st.floats(0.05, 3),
    st.floats(0.15, 0.8),
)
def test_the_stepped_pull_is_the_integrated_one(
    steps: list[tuple[int, int, float]], radius: float, weight: float, friction: float
) -> None:
    points = path(steps)
    for pieces in (pieces_of(points, [radius] * len(points)), reverse_of(pieces_of(points, [radius] * len(points)))):
        found = tension(pieces, weight, friction).lb
        assert found == pytest.approx(integrated(pieces, weight, friction), rel=4e-3, abs=0.04 * weight)


def test_a_level_bend_with_much_pull_is_the_capstan() -> None:
    """Where the weight is nothing beside the pull, T·e^(μφ) (Euler, Eytelwein)."""
    points: Points = [(0, 0, 0), (10, 0, 0), (10, 10, 0)]
    found = tension(pieces_of(points, [4.0] * 3), 1e-6, 0.35, start_lb=100.0)
    assert found.lb == pytest.approx(100 * math.exp(0.35 * math.pi / 2), rel=1e-4)
    assert found.sidewall_lb_per_ft == pytest.approx(found.lb / (4 / 12), rel=1e-4)


def test_up_weighs_and_down_does_not_push() -> None:
    up = pieces_of([(0, 0, 0), (0, 0, 120)], [0, 0])
    assert tension(up, 2.0, 0.4).lb == pytest.approx(20.0)
    assert tension(reverse_of(up), 2.0, 0.4).lb == 0.0
    assert climb_in(up) == 120 and climb_in(reverse_of(up)) == -120


def test_the_reverse_of_the_reverse_is_the_pipe() -> None:
    pieces = pieces_of(path([(0, 1, 90.0), (1, -1, 60.0), (0, 1, 120.0)]), [5.0] * 5)
    again = reverse_of(reverse_of(pieces))
    assert tension(again, 1.0, 0.4).lb == pytest.approx(tension(pieces, 1.0, 0.4).lb)


def test_more_friction_is_never_less_pull() -> None:
    pieces = pieces_of(path([(0, 1, 90.0), (1, 1, 60.0), (0, -1, 120.0)]), [5.0] * 5)
    pulls = [tension(pieces, 0.3, friction).lb for friction in (0.2, 0.35, 0.5, 0.75)]
    assert pulls == sorted(pulls)


def test_a_band_of_a_long_pull_is_quick() -> None:
    """Three frictions from both ends of 300 ft with 20 bends: a limit far over what `make bench` tells, so that only
    another order of work trips it."""
    pieces = pieces_of(path([(n % 2, 1 if n % 3 else -1, 180.0) for n in range(20)]), [5.4] * 22)
    before = time.process_time()
    for friction in (0.25, 0.35, 0.5):
        tension(pieces, 0.4, friction)
        tension(reverse_of(pieces), 0.4, friction)
    assert time.process_time() - before < 0.5
