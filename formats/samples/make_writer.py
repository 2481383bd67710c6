"""Makes the Word, ODT and PDF samples with LibreOffice, and writes down what LibreOffice itself says of them.

Run by make.sh with the system's Python; soffice has to listen on the pipe "samples".
"""
import json
import os
import re
import sys
import uno
from com.sun.star.beans import PropertyValue
from com.sun.star.style.BreakType import PAGE_BEFORE
from com.sun.star.text.ControlCharacter import PARAGRAPH_BREAK
from com.sun.star.util import DateTime

OUT = os.path.abspath(sys.argv[1])


def prop(name, value):
    p = PropertyValue()
    p.Name, p.Value = name, value
    return p


local = uno.getComponentContext()
resolver = local.ServiceManager.createInstanceWithContext("com.sun.star.bridge.UnoUrlResolver", local)
ctx = resolver.resolve("uno:pipe,name=samples;urp;StarOffice.ComponentContext")
smgr = ctx.ServiceManager
desktop = smgr.createInstanceWithContext("com.sun.star.frame.Desktop", ctx)


def set_user(given, family):
    provider = smgr.createInstanceWithContext("com.sun.star.configuration.ConfigurationProvider", ctx)
    access = provider.createInstanceWithArguments(
        "com.sun.star.configuration.ConfigurationUpdateAccess",
        (prop("nodepath", "/org.openoffice.UserProfile/Data"),),
    )
    access.setPropertyValue("givenname", given)
    access.setPropertyValue("sn", family)
    access.commitChanges()


def new_doc():
    return desktop.loadComponentFromURL("private:factory/swriter", "_blank", 0, (prop("Hidden", True),))


def store(doc, name, filter_name, extra=()):
    doc.storeToURL("file://" + os.path.join(OUT, name), (prop("FilterName", filter_name),) + tuple(extra))


def write(doc, blocks):
    text = doc.Text
    cursor = text.createTextCursor()
    for index, (style, words) in enumerate(blocks):
        if index:
            text.insertControlCharacter(cursor, PARAGRAPH_BREAK, False)
        cursor.ParaStyleName = style
        text.insertString(cursor, words, False)
    return cursor


def find(doc, words, last=False):
    search = doc.createSearchDescriptor()
    search.SearchString = words
    search.SearchCaseSensitive = True
    found = doc.findFirst(search)
    if found is None:
        raise SystemExit("not found: " + words)
    return found


def span(doc, first, last):
    """A range from the first words to the last ones, across whatever lies between."""
    a, b = find(doc, first), find(doc, last)
    cursor = a.Text.createTextCursorByRange(a.Start)
    cursor.gotoRange(b.End, True)
    return cursor


def comment(doc, rng, author, words, when, resolved=False):
    field = doc.createInstance("com.sun.star.text.textfield.Annotation")
    field.Author = author
    field.Content = words
    stamp = DateTime()
    stamp.Year, stamp.Month, stamp.Day, stamp.Hours, stamp.Minutes = when
    field.DateTimeValue = stamp
    if resolved:
        field.Resolved = True
    rng.Text.insertTextContent(rng, field, True)
    return field


BLOCKS = [
    ("Heading 1", "Why the dams at Skarn Moss leak"),
    ("Text body", "The eastern dams were built in one week, and two of them have leaked since the first frost."),
    ("Heading 2", "What was seen"),
    ("Text body", "Water stood higher behind the peat dams than behind the plank dams, although both were set on the same day."),
    ("Text body", "The planks had shrunk. Gaps of three millimetres let the water through at night."),
    ("List 1", "peat dams: four, all tight"),
    ("List 1", "plank dams: five, two leaking"),
    ("Text body", "Sphagnum came back beside every tight dam."),
    ("Text body", "The wardens walked the line each Friday and wrote the levels down."),
]


def with_table(doc, cursor):
    text = doc.Text
    text.insertControlCharacter(cursor, PARAGRAPH_BREAK, False)
    cursor.ParaStyleName = "Text body"
    table = doc.createInstance("com.sun.star.text.TextTable")
    table.initialize(3, 2)
    text.insertTextContent(cursor, table, False)
    rows = [("Dam", "Loss in a night"), ("plank 3", "41 litres"), ("plank 5", "18 litres")]
    for r, row in enumerate(rows):
        for c, words in enumerate(row):
            table.getCellByPosition(c, r).String = words
    end = text.createTextCursor()
    end.gotoEnd(False)
    text.insertString(end, "Both leaks were measured with a bucket and a watch.", False)


def remarked(doc):
    """Comments over part of a run, several runs, paragraphs, a table cell; nested, overlapping, at a point, resolved."""
    find(doc, "shrunk").CharWeight = 150
    find(doc, "same day").CharPosture = uno.Enum("com.sun.star.awt.FontSlant", "ITALIC")
    comment(doc, find(doc, "leaked since the first frost"), "Dr Aune Keld", "Which two? Name them here.", (2026, 3, 2, 9, 15))
    comment(doc, span(doc, "planks had", "Gaps"), "Dr Aune Keld", "Cause before effect: say first why wood shrinks.", (2026, 3, 2, 9, 21))
    comment(doc, span(doc, "water through at night", "peat dams: four"), "Pascoe Wray", "This list interrupts the argument.\nMove it into the table.", (2026, 3, 3, 14, 2))
    comment(doc, find(doc, "41 litres"), "Dr Aune Keld", "Measured how often?", (2026, 3, 2, 9, 40))
    comment(doc, span(doc, "Water stood higher", "both were set on the same day"), "Pascoe Wray", "A good comparison <b>& well put</b>.", (2026, 3, 3, 14, 5), True)
    comment(doc, find(doc, "plank dams, although"), "Dr Aune Keld", "“although” hides the reason.", (2026, 3, 2, 9, 44))
    comment(doc, find(doc, "beside every tight dam"), "Lindiwe Strand", "", (2026, 3, 4, 8, 0))


def changed(doc):
    """Tracked changes by two people: words put in, taken out, exchanged, looks changed."""
    set_user("Aune", "Keld")
    doc.RecordChanges = True
    rng = find(doc, "in one week")
    rng.Text.insertString(rng.End, " of dry weather", False)
    find(doc, "walked the line").String = ""
    set_user("Pascoe", "Wray")
    find(doc, "wrote the levels down").String = "noted the levels"
    find(doc, "every tight dam").CharWeight = 150
    doc.RecordChanges = False


def dispatch(doc, command, *args):
    helper = smgr.createInstanceWithContext("com.sun.star.frame.DispatchHelper", ctx)
    helper.executeDispatch(doc.CurrentController.Frame, command, "", 0, tuple(args))


def plain(words):
    return re.sub(r"\s+", " ", words).strip()


def annotations(doc):
    found = []
    fields = doc.TextFields.createEnumeration()
    while fields.hasMoreElements():
        field = fields.nextElement()
        if not field.supportsService("com.sun.star.text.textfield.Annotation"):
            continue
        at = field.DateTimeValue
        found.append({
            "kind": "comment",
            "author": field.Author,
            "text": field.Content,
            "created": "%04d-%02d-%02dT%02d:%02d" % (at.Year, at.Month, at.Day, at.Hours, at.Minutes),
            "exact": plain(field.Anchor.String),
            "state": "done" if field.Resolved else None,
        })
    return found


def redlines(doc):
    kinds = {"Insert": "insertion", "Delete": "deletion", "Format": "format", "Attribute": "format", "ParagraphFormat": "format"}
    found = []
    lines = doc.Redlines.createEnumeration()
    while lines.hasMoreElements():
        line = lines.nextElement()
        start, end = line.getPropertyValue("RedlineStart"), line.getPropertyValue("RedlineEnd")
        words = ""
        if start is not None and end is not None:
            cursor = start.Text.createTextCursorByRange(start)
            cursor.gotoRange(end, True)
            words = plain(cursor.String)
        found.append({
            "kind": kinds.get(line.getPropertyValue("RedlineType"), line.getPropertyValue("RedlineType")),
            "author": line.getPropertyValue("RedlineAuthor"),
            "exact": words,
        })
    return found


def reread(name, listing):
    """What LibreOffice says of a file when it opens it again."""
    doc = desktop.loadComponentFromURL("file://" + os.path.join(OUT, name), "_blank", 0, (prop("Hidden", True),))
    found = listing(doc)
    doc.close(True)
    return found


truth = {}

doc = new_doc()
with_table(doc, write(doc, BLOCKS))
store(doc, "dams-plain.pdf", "writer_pdf_Export")
remarked(doc)
store(doc, "dams.docx", "MS Word 2007 XML")
store(doc, "dams.odt", "writer8")
store(doc, "dams-notes.pdf", "writer_pdf_Export", (prop("FilterData", uno.Any("[]com.sun.star.beans.PropertyValue", (prop("ExportNotes", True),))),))
doc.close(True)
for name in ("dams.docx", "dams.odt"):
    truth[name] = reread(name, annotations)

doc = new_doc()
with_table(doc, write(doc, BLOCKS))
changed(doc)
store(doc, "dams-changed.docx", "MS Word 2007 XML")
store(doc, "dams-changed.odt", "writer8")
doc.close(True)
for name in ("dams-changed.docx", "dams-changed.odt"):
    truth[name] = reread(name, redlines)

doc = new_doc()
with_table(doc, write(doc, BLOCKS))
doc.RecordChanges = True
doc.CurrentController.ViewCursor.gotoRange(find(doc, "Sphagnum").Start, False)
dispatch(doc, ".uno:MoveDown")
store(doc, "dams-moved.docx", "MS Word 2007 XML")
doc.close(True)
truth["dams-moved.docx"] = [{"kind": "move", "author": "Pascoe Wray", "exact": "Sphagnum came back beside every tight dam."}]

# A footnote and a picture with a description.
doc = new_doc()
cursor = write(doc, [("Heading 1", "The log of the core"), ("Text body", "The core was taken beside dam four."), ("Text body", "Its layers are drawn here.")])
note = doc.createInstance("com.sun.star.text.Footnote")
at = find(doc, "dam four")
at.Text.insertTextContent(at.End, note, False)
note.String = "In the second week of March."
picture = doc.createInstance("com.sun.star.text.TextGraphicObject")
provider = smgr.createInstanceWithContext("com.sun.star.graphic.GraphicProvider", ctx)
picture.Graphic = provider.queryGraphic((prop("URL", "file://" + os.path.join(OUT, "core.png")),))
picture.setPropertyValue("Description", "Four layers of peat")
picture.AnchorType = uno.Enum("com.sun.star.text.TextContentAnchorType", "AS_CHARACTER")
end = find(doc, "drawn here.")
end.Text.insertTextContent(end.End, picture, False)
store(doc, "core.docx", "MS Word 2007 XML")
store(doc, "core.odt", "writer8")
doc.close(True)

# A paper to be marked as PDF: two columns with words cut at line ends, ligatures, text that runs to the left, a wide page.
doc = new_doc()
style = doc.StyleFamilies.getByName("PageStyles").getByName("Standard")
COLUMN_TEXT = (
    "Rainwater collects in the hollows of a raised bog and leaves it slowly through the uppermost moss layer. "
    "Where hand-dug ditches cross that layer the outflow is accelerated considerably, and measurements immediately "
    "beside the ditches underestimate the water remaining between them. Interdisciplinary fieldwork distinguishes "
    "infiltration from evapotranspiration only approximately. Effective dams flatten the fluctuations; efficient "
    "offices file the findings. Comparable investigations elsewhere demonstrated corresponding improvements. "
)
cursor = write(doc, [("Heading 1", "Notes on two transects"), ("Text body", COLUMN_TEXT * 2), ("Text body", "After the second winter the eastern hollow stayed wet until June."), ("Text body", COLUMN_TEXT)])
section = doc.createInstance("com.sun.star.text.TextSection")
columns = doc.createInstance("com.sun.star.text.TextColumns")
columns.setColumnCount(2)
section.TextColumns = columns
body = doc.Text.createTextCursor()
body.gotoStart(False)
body.gotoNextParagraph(False)
body.gotoEnd(True)
body.ParaIsHyphenation = True
body.CharLocale = uno.createUnoStruct("com.sun.star.lang.Locale", "en", "GB", "")
body.CharFontName = "DejaVu Serif"
doc.Text.insertTextContent(body, section, True)
end = doc.Text.createTextCursor()
end.gotoEnd(False)
doc.Text.insertControlCharacter(end, PARAGRAPH_BREAK, False)
end.gotoEnd(False)
end.BreakType = PAGE_BEFORE
end.ParaStyleName = "Text body"
end.CharFontName = "DejaVu Sans"
doc.Text.insertString(end, "A warden’s note in another script follows.", False)
doc.Text.insertControlCharacter(end, PARAGRAPH_BREAK, False)
end.gotoEnd(False)
end.BreakType = uno.Enum("com.sun.star.style.BreakType", "NONE")
end.WritingMode = 1
end.CharLocaleComplex = uno.createUnoStruct("com.sun.star.lang.Locale", "ar", "EG", "")
end.CharFontNameComplex = "DejaVu Sans"
doc.Text.insertString(end, "المستنقع يحفظ الماء في الشتاء ويعطيه في الصيف", False)
store(doc, "transects-plain.pdf", "writer_pdf_Export")
doc.close(True)

json.dump(truth, open(os.path.join(OUT, "writer-truth.json"), "w"), ensure_ascii=False, indent=1)
