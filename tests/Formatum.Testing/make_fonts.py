"""Fonts for the tests, made by fontTools, which shares nothing with the program. Arguments: a TrueType font, and the folder to write to."""
import sys
from fontTools.fontBuilder import FontBuilder
from fontTools.pens.t2CharStringPen import T2CharStringPen
from fontTools.pens.ttGlyphPen import TTGlyphPen
from fontTools.ttLib import TTFont
from fontTools.ttLib.tables.TupleVariation import TupleVariation
from fontTools.ttLib.woff2 import WOFF2FlavorData
from fontTools.varLib import instancer

given, folder = sys.argv[1:]


def renamed(family, **style):
    font = TTFont(given)
    for record in font['name'].names:
        if record.nameID in (1, 16):
            record.string = family
    for name, value in style.items():
        setattr(font['OS/2'], name, value)
    return font


def save(font, name):
    font.save(f'{folder}/{name}')


# Compressed for the web, with outlines taken apart, with side bearings left out too, and with neither.
for name, tables in (('plain', ()), ('outlines', ('glyf', 'loca')), ('bearings', ('glyf', 'loca', 'hmtx'))):
    font = renamed('Squeezed')
    font.flavor, font.flavorData = 'woff2', WOFF2FlavorData(transformedTables=tables)
    save(font, f'{name}.woff2')
font = renamed('Squeezed')
font.flavor = 'woff'
save(font, 'plain.woff')

# What their makers allow (OS/2, fsType).
for name, bits in (('installable', 0), ('restricted', 2), ('preview', 4), ('editable', 8), ('whole', 0x104), ('pictures', 0x208)):
    save(renamed(f'Type {name}', fsType=bits), f'{name}.ttf')
save(renamed('Slanted', fsSelection=0x21), 'slanted.ttf')


def square(pen, width):
    pen.moveTo((50, 0))
    for point in ((50, 700), (width, 700), (width, 0)):
        pen.lineTo(point)
    pen.closePath()
    return pen


def built(is_true_type, family):
    builder = FontBuilder(1000, isTTF=is_true_type)
    builder.setupGlyphOrder(['.notdef', 'space', 'A', 'B'])
    builder.setupCharacterMap({32: 'space', 65: 'A', 66: 'B'})
    builder.setupNameTable({'familyName': family, 'styleName': 'Regular'})
    return builder


def finish(builder):
    builder.setupHorizontalMetrics({'.notdef': (500, 50), 'space': (250, 0), 'A': (600, 50), 'B': (700, 50)})
    builder.setupHorizontalHeader(ascent=800, descent=-200)
    builder.setupOS2(sTypoAscender=800, usWinAscent=800, usWinDescent=200)
    builder.setupPost()
    return builder.font


widths = {'.notdef': 450, 'space': None, 'A': 550, 'B': 650}
cubic = built(False, 'Cubic')
cubic.setupCFF('Cubic', {}, {glyph: square(T2CharStringPen(600, None), width).getCharString() if width else T2CharStringPen(250, None).getCharString()
                            for glyph, width in widths.items()}, {})
save(finish(cubic), 'cubic.otf')

varying = built(True, 'Varying')
varying.setupGlyf({glyph: square(TTGlyphPen(None), width).glyph() if width else TTGlyphPen(None).glyph() for glyph, width in widths.items()})
font = finish(varying)
varying.setupFvar([('wght', 100, 300, 900, 'Weight')], [])
varying.setupGvar({glyph: [TupleVariation({'wght': (0, 1, 1)}, [(0, 0), (0, 0), (120, 0), (120, 0), (0, 0), (120, 0), (0, 0), (0, 0)])]
                   for glyph, width in widths.items() if width})
save(font, 'varying.ttf')
for weight in (400, 700):
    save(instancer.instantiateVariableFont(TTFont(f'{folder}/varying.ttf'), {'wght': weight}), f'held-{weight}.ttf')
