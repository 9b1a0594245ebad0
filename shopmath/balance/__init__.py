"""Balance: of a crank's counterweight, and of a flywheel on its arbor."""

from shopmath.balance.drilling import Drilled, DrillLimits, DrillPlan, Hole, drill_plan, drilled_mass_g, wall_left_mm
from shopmath.balance.factor import balance_factor, bob_weight_for_factor_g
from shopmath.balance.residual_check import MARKS, Proof, added_mass_g, by_turning_masses
from shopmath.balance.static_rolls import Stops, looks_for, stops, stops_wanted
from shopmath.balance.unbalance import (
    Unbalance,
    after_holes,
    by_trial_mass,
    force_n,
    from_hole,
    permissible_gmm,
    rim_limit_m_s,
    rim_speed_m_s,
)

__all__ = [
    "MARKS",
    "DrillLimits",
    "DrillPlan",
    "Drilled",
    "Hole",
    "Proof",
    "Stops",
    "Unbalance",
    "added_mass_g",
    "after_holes",
    "balance_factor",
    "bob_weight_for_factor_g",
    "by_trial_mass",
    "by_turning_masses",
    "drill_plan",
    "drilled_mass_g",
    "force_n",
    "from_hole",
    "looks_for",
    "permissible_gmm",
    "rim_limit_m_s",
    "rim_speed_m_s",
    "stops",
    "stops_wanted",
    "wall_left_mm",
]
