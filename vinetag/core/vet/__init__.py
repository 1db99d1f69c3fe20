"""Looking at a name from outside: what people type who mean it."""

from vinetag.core.vet.mistypes import MISTYPE_KINDS, Mistype, Shares, elsewhere, mistypes

__all__ = ["MISTYPE_KINDS", "Mistype", "Shares", "elsewhere", "mistypes"]
