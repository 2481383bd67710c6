"""Adds a tutor's notes to a copy that Juncture wrote: a highlight and a note by MuPDF, an answer by pikepdf (qpdf)."""
import os
import sys

import fitz
import pikepdf

written, out = sys.argv[1:]
TUTOR, WHEN = "Oriel Fane", "D:20261105120000Z"

document = fitz.open(written)
page = document[1]
[found] = page.search_for("two leaking")
annot = page.add_highlight_annot(found)
annot.set_info(title=TUTOR, content="Start your answer here: these two are the story.", creationDate=WHEN, modDate=WHEN)
annot.update()
annot = page.add_text_annot(fitz.Point(500, 700), "Come again with the table filled in.")
annot.set_info(title=TUTOR, content="Come again with the table filled in.", creationDate=WHEN, modDate=WHEN)
annot.update()
document.save(out + ".part", incremental=False)

with pikepdf.open(out + ".part") as pdf:
    annots = pdf.pages[1].Annots
    first = next(a for a in annots if str(a.get("/Contents", "")) == "Which two? Name them here.")
    annots.append(pdf.make_indirect(pikepdf.Dictionary(
        Type=pikepdf.Name.Annot, Subtype=pikepdf.Name.Text, Rect=first.Rect, F=30, IRT=first,
        Contents="He wants the numbers of the planks.", T=TUTOR, CreationDate=WHEN, M=WHEN,
    )))
    pdf.save(out)
os.remove(out + ".part")
