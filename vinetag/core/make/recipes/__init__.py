"""The recipes, one module each. To add one: write its module and list it here."""

from collections.abc import Sequence
from typing import Final

from vinetag.core.make.draft import Recipe
from vinetag.core.make.recipes.exact import Exact
from vinetag.core.make.recipes.hyphen import Hyphen
from vinetag.core.make.recipes.lead import Lead
from vinetag.core.make.recipes.pair import Pair
from vinetag.core.make.recipes.tail import Tail

__all__ = ["RECIPES"]

RECIPES: Final[Sequence[Recipe]] = (Exact(), Pair(), Lead(), Tail(), Hyphen())
