"""Cuts into coils."""

from levelrun.core.trade.coils.plan import coil_plan, planned, remember
from levelrun.core.trade.coils.stock import Coil, CoilPlan, Filled

__all__ = ["Coil", "CoilPlan", "Filled", "coil_plan", "planned", "remember"]
