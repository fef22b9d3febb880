"""The card's typeface as files that Rust reads: regular and bold of Atkinson Hyperlegible Next (SIL Open Font License 1.1), each from the
variable font that the page ships, Latin and extended Latin in one; and the variable font itself for pages.

usage: fonts.py web/node_modules/@fontsource-variable/atkinson-hyperlegible-next crates/handover/assets
"""
import shutil
import sys
from pathlib import Path
from tempfile import TemporaryDirectory

from fontTools.merge import Merger
from fontTools.ttLib import TTFont
from fontTools.varLib.instancer import instantiateVariableFont


def main(package, assets):
    files = package / "files"
    name = "atkinson-hyperlegible-next-{}-wght-normal.woff2"
    for word, weight in [("regular", 400), ("bold", 700)]:
        with TemporaryDirectory() as folder:
            parts = []
            for part in ["latin", "latin-ext"]:
                font = TTFont(files / name.format(part))
                font = instantiateVariableFont(font, {"wght": weight})
                font.flavor = None
                for table in ["GSUB", "GPOS", "GDEF", "STAT", "DSIG"]:
                    if table in font:
                        del font[table]
                path = Path(folder) / f"{part}.ttf"
                font.save(path)
                parts.append(str(path))
            font = Merger().merge(parts)
            font["OS/2"].usWeightClass = weight
            font["head"].created = font["head"].modified = 0
            for record in font["name"].names:
                if record.nameID in (1, 16):
                    record.string = "Atkinson Hyperlegible Next"
                if record.nameID in (2, 17):
                    record.string = word.capitalize()
            font["head"].macStyle = 1 if weight == 700 else 0
            font["OS/2"].fsSelection = 0x20 if weight == 700 else 0x40
            font.recalcTimestamp = False
            font.save(assets / f"atkinson-{word}.ttf")
    shutil.copy(files / name.format("latin"), assets / "atkinson.woff2")
    shutil.copy(package / "LICENSE", assets / "LICENSE")


main(Path(sys.argv[1]), Path(sys.argv[2]))
