"""Errors that a person can do something about; the interface prints them as one sentence."""

from __future__ import annotations


class AedifexError(Exception):
    """Unusable input or wrong usage (exit status 2)."""

    status = 2


class Refused(AedifexError):
    """Something that was understood and is not done (exit status 1)."""

    status = 1
