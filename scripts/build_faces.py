"""Make the typefaces of the wordmark try-out from their npm packages.

    python scripts/build_faces.py FOLDER

FOLDER holds `node_modules` with the packages and versions listed in FACES (npm install there). Each
file is turned from WOFF into TTF, for shaping reads that; faces.json says what each is.
"""

from __future__ import annotations

import argparse
import json
from pathlib import Path

from fontTools.ttLib import TTFont

VERSION = "5.3.0"
HERE = Path(__file__).parents[1] / "vinetag/core/wordmark/faces"
# Package, weight, what it is called here, what such letters tend to suggest.
FACES = (
    ("literata", 500, "book serif", "calm, well read"),
    ("cormorant-garamond", 500, "old serif", "fine, unhurried"),
    ("playfair-display", 600, "sharp serif", "fashion, evenings out"),
    ("abril-fatface", 400, "fat serif", "posters, appetite"),
    ("zilla-slab", 600, "slab serif", "tools, sturdiness"),
    ("work-sans", 500, "plain sans", "matter of fact"),
    ("archivo-black", 400, "heavy sans", "loud, sure of itself"),
    ("josefin-sans", 400, "thin geometric", "elegant, of the twenties"),
    ("space-grotesk", 600, "technical sans", "instruments, code"),
    ("quicksand", 600, "round sans", "friendly, for children too"),
    ("caveat", 600, "handwriting", "personal, a note"),
    ("pacifico", 400, "brush script", "leisure, sweets"),
)


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("folder", type=Path)
    packages = parser.parse_args().folder / "node_modules/@fontsource"
    listed = []
    for name, weight, word, suggests in FACES:
        package = packages / name
        version = json.loads((package / "package.json").read_text())["version"]
        if version != VERSION:
            raise SystemExit(f"{name} is {version}, not {VERSION}.")
        font = TTFont(package / f"files/{name}-latin-{weight}-normal.woff")
        font.flavor = None
        font.save(HERE / f"{name}.ttf", reorderTables=True)
        holder = (package / "LICENSE").read_text().splitlines()[0]
        listed.append(
            {"name": name, "word": word, "suggests": suggests, "version": version,
             "licence": "OFL-1.1", "notice": holder}
        )  # fmt: skip
    (HERE / "faces.json").write_text(json.dumps(listed, indent=1, ensure_ascii=False) + "\n")


if __name__ == "__main__":
    main()
