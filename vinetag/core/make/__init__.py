"""Making names: recipes turn words into candidates; the planner runs, merges and ranks them."""

from vinetag.core.make.draft import Draft, Recipe
from vinetag.core.make.graded import Graded
from vinetag.core.make.job import Job
from vinetag.core.make.listing import Made, make_names
from vinetag.core.make.recipes import RECIPES
from vinetag.core.make.vary import vary

__all__ = ["RECIPES", "Draft", "Graded", "Job", "Made", "Recipe", "make_names", "vary"]
