"""Make the fonts that paper is set in, of those that the screen has: ``python -m tools.fonts``, after ``npm install``.

A page is set by a program that reads TrueType of one weight; the screen's are compressed, variable, and parted by
alphabet. Their licence (SIL OFL) lets them be changed and passed on.
"""

from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from fontTools import merge, ttLib
from fontTools.varLib import instancer

SOURCE = Path("frontend/node_modules/@fontsource-variable")
TARGET = Path("ripresa/formats/fonts")
#: Family of the screen → weights that paper needs.
FONTS = {
    "atkinson-hyperlegible-next": ("Atkinson Hyperlegible Next", {"Regular": 400, "Bold": 700}),
    "bricolage-grotesque": ("Bricolage Grotesque", {"Bold": 700}),
}
ALPHABETS = ("latin", "latin-ext")


def main() -> None:
    TARGET.mkdir(exist_ok=True)
    for folder, (family, weights) in FONTS.items():
        for style, weight in weights.items():
            with TemporaryDirectory() as parts:
                files = []
                for alphabet in ALPHABETS:
                    variable: Any = ttLib.TTFont(SOURCE / folder / "files" / f"{folder}-{alphabet}-wght-normal.woff2")
                    font = instancer.instantiateVariableFont(variable, {"wght": weight})
                    font.flavor = None
                    for table in ("STAT", "GSUB", "GPOS", "GDEF", "MVAR", "HVAR"):
                        # Figures of one width come of the letters themselves; kerning is not worth a merge of rules.
                        if table in font:
                            del font[table]
                    files.append(f"{parts}/{alphabet}.ttf")
                    font.save(files[-1])
                whole: Any = merge.Merger().merge(files)
                _name(whole, family, style)
                whole["OS/2"].usWeightClass = weight
                whole.save(TARGET / f"{family.replace(' ', '')}-{style}.ttf")


def _name(font: Any, family: str, style: str) -> None:
    names = font["name"]
    names.names = [one for one in names.names if one.nameID in {0, 13, 14}]
    for number, text in ((1, family), (2, style), (4, f"{family} {style}"), (6, f"{family.replace(' ', '')}-{style}")):
        names.setName(text, number, 3, 1, 0x409)


if __name__ == "__main__":
    main()
