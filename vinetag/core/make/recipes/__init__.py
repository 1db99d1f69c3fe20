"""The recipes, a module each. To add one: write its module, with a class that makes, under the name
of its record in vinetag.core.concepts.recipes.
"""

from collections.abc import Sequence
from typing import Final

from vinetag.core.concepts import RECIPE_NAMES
from vinetag.core.make.draft import Recipe
from vinetag.core.naming_modules import named_in

__all__ = ["RECIPES"]

RECIPES: Final[Sequence[Recipe]] = tuple(named_in(__name__, name) for name in RECIPE_NAMES)
