"""The form of the messages of an exercise."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from django.utils.functional import Promise

Sentence = str | Promise


@dataclass(frozen=True)
class Said:
    """The messages of one exercise.

    `levels` describes each level; a control or true value that is missing here has no message.
    """

    name: Sentence
    asks: Sentence  # what is to be done
    levels: Mapping[str, Sentence]
    begin: Sentence  # what to type where the station asks for what hands cannot see
    levers: Mapping[str, Sentence]
    shown: Mapping[str, Sentence]
    truth: Mapping[str, Sentence]
    left: Sentence
    groups: Mapping[str, Sentence] = field(default_factory=dict)  # of levers that differ only in where: what stands before them
    counted: Mapping[str, tuple[str, float]] = field(default_factory=dict)  # groups whose levers are quantities: their kind and step
    advice: Mapping[str, Sentence] = field(default_factory=dict)
    typed: Mapping[str, Sentence] = field(default_factory=dict)
