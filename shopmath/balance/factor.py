"""Balance of a crank: how much of the moving mass its counterweight answers."""

from __future__ import annotations

from shopmath.validation import not_negative, positive


def balance_factor(hung_g: float, small_end_g: float, reciprocating_g: float) -> float:
    """Balance factor of a single-cylinder crank.

    Parameters
    ----------
    hung_g : float
        Mass hung from the small end's place that balances the crank on level rails, g.
    small_end_g : float
        Small end of the rod, weighed with the rod level, g.
    reciprocating_g : float
        Piston, pin, rings, clips and the small end, g.

    Returns
    -------
    float
        Share of the reciprocating mass that is balanced, 0 to 1 usually.

    Raises
    ------
    BadInput
        Negative masses, nothing that moves.

    Source
    ------
    Static balancing on knife edges: (hung + small end) / reciprocating.

    Examples
    --------
    >>> round(balance_factor(85, 62, 310), 3)
    0.474
    """
    carried = not_negative("hung_g", hung_g) + not_negative("small_end_g", small_end_g)
    return carried / positive("reciprocating_g", reciprocating_g)


def bob_weight_for_factor_g(factor: float, small_end_g: float, reciprocating_g: float) -> float:
    """Return the bob weight with which a crank of the specified factor stays level, g.

    Examples
    --------
    >>> round(bob_weight_for_factor_g(0.474, 62, 330), 1)
    94.4
    """
    return not_negative("factor", factor) * positive("reciprocating_g", reciprocating_g) - not_negative("small_end_g", small_end_g)
