"""The recipes, one module each. To add one: write its module, list it here, and name it in
RECIPE_NAMES of the brief.
"""

from collections.abc import Sequence
from typing import Final

from vinetag.core.make.draft import Recipe
from vinetag.core.make.recipes.acrossdot import AcrossDot
from vinetag.core.make.recipes.affix import Affix
from vinetag.core.make.recipes.blend import Blend
from vinetag.core.make.recipes.call import Call
from vinetag.core.make.recipes.clip import Clip
from vinetag.core.make.recipes.couple import Couple
from vinetag.core.make.recipes.exact import Exact
from vinetag.core.make.recipes.form import Form
from vinetag.core.make.recipes.hyphen import Hyphen
from vinetag.core.make.recipes.initials import Initials
from vinetag.core.make.recipes.invent import Invent
from vinetag.core.make.recipes.lead import Lead
from vinetag.core.make.recipes.mirror import Mirror
from vinetag.core.make.recipes.moment import Moment
from vinetag.core.make.recipes.pair import Pair
from vinetag.core.make.recipes.place import Place
from vinetag.core.make.recipes.plain import Plain
from vinetag.core.make.recipes.quality import Quality
from vinetag.core.make.recipes.respell import Respell
from vinetag.core.make.recipes.saying import Saying
from vinetag.core.make.recipes.tail import Tail

__all__ = ["RECIPES"]

RECIPES: Final[Sequence[Recipe]] = (
    Saying(), Couple(), Call(), Plain(), Quality(), Moment(), Exact(), Pair(), Lead(), Tail(),
    Affix(), Form(), Blend(), Clip(), Respell(), Mirror(), Invent(), Initials(), AcrossDot(),
    Hyphen(), Place(),
)  # fmt: skip
