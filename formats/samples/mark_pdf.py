"""Marks PDFs with MuPDF, takes their truth from poppler and qpdf. Run by make.sh after make_writer.py."""
import json
import os
import re
import subprocess
import sys
import xml.etree.ElementTree as ET

import fitz
import pikepdf

OUT = os.path.abspath(sys.argv[1])
KELD, WRAY = "Dr Aune Keld", "Pascoe Wray"


def path(name):
    return os.path.join(OUT, name)


def stamp(annot, author, text, when, color=None):
    annot.set_info(title=author, content=text, creationDate=when, modDate=when)
    if color:
        annot.set_colors(stroke=color)
    annot.update()
    return annot


FOUND = {}


def search(page, *all_words):
    """Looks all up before anything is marked: MuPDF's Python forgets a page's text when annotations are added."""
    text = page.get_textpage()
    for words in all_words:
        FOUND[words] = page.search_for(words, quads=True, textpage=text)


def found(page, words):
    if not FOUND.get(words):
        raise SystemExit("not found: " + words)
    return FOUND[words]


def mark(page, kind, words, author, text, when, color):
    """A text markup over words that MuPDF finds, line by line."""
    quads = found(page, words)
    annot = getattr(page, f"add_{kind}_annot")(quads=quads)
    return stamp(annot, author, text, when, color)


YELLOW, GREEN, RED, BLUE = (0.96, 0.85, 0.25), (0.4, 0.8, 0.4), (0.8, 0.2, 0.2), (0.2, 0.4, 0.8)

PART = sys.argv[2]

if PART == "kinds":
    # 1. One plain page with every kind of annotation.
    doc = fitz.open(path("dams-plain.pdf"))
    page = doc[0]
    search(page, "leaked since the first frost", "plank dams, although", "wrote the levels down", "walked the line", "The planks had shrunk", "41 litres", "three millimetres", "plank 5", "in one week")
    mark(page, "highlight", "leaked since the first frost", KELD, "Which two? Name them here.", "D:20260302091500Z", YELLOW)
    mark(page, "underline", "plank dams, although", KELD, "“although” hides the reason.", "D:20260302094400Z", BLUE)
    mark(page, "squiggly", "wrote the levels down", WRAY, "", "D:20260303140200+02'00'", GREEN)
    mark(page, "strikeout", "walked the line", KELD, "Cut.", "D:20260302095000Z", RED)
    words = found(page, "The planks had shrunk")[0].rect
    stamp(page.add_text_annot((500, words.y0), "Cause before effect: say first why wood shrinks.", icon="Note"), KELD, "Cause before effect: say first why wood shrinks.", "D:20260302092100Z", YELLOW)
    box = found(page, "41 litres")[0].rect
    stamp(page.add_rect_annot(box + (-3, -3, 3, 3)), KELD, "Measured how often?", "D:20260302094000Z", RED)
    ring = found(page, "three millimetres")[0].rect
    stamp(page.add_circle_annot(ring + (-7, -7, 7, 7)), WRAY, "All of them?", "D:20260303141000Z", RED)
    free = page.add_freetext_annot((330, 640, 560, 670), "See the map again.", fontsize=11, text_color=(0.55, 0.1, 0.1))
    free.set_info(title=KELD, creationDate="D:20260302100000Z", modDate="D:20260302100000Z")
    free.update()
    stamp(page.add_ink_annot([[(60, 400), (66, 410), (80, 380)], [(84, 384), (90, 396)]]), KELD, "", "D:20260302100500Z", RED)
    stamp(page.add_line_annot((70, 500), (140, 520)), WRAY, "Move up?", "D:20260303141500Z", BLUE)
    doc.save(path("kinds-0.pdf"), garbage=3, deflate=True)
    doc.close()

    # Replies, states, a hidden copy, a group, a rich text, an unknown kind: written in by qpdf's library.
    pdf = pikepdf.open(path("kinds-0.pdf"))
    page = pdf.pages[0]
    annots = page.Annots
    by_text = {str(a.get("/Contents", "")): a for a in annots}
    target = by_text["Which two? Name them here."]


    def add(fields):
        made = pdf.make_indirect(pikepdf.Dictionary(Type=pikepdf.Name.Annot, Rect=[10, 10, 30, 30], F=28, **fields))
        annots.append(made)
        return made


    reply = add(dict(Subtype=pikepdf.Name.Text, IRT=target, T="Ines Tarrow", Contents="Planks 3 and 5.", CreationDate="D:20260305100000Z", NM="reply-1"))
    add(dict(Subtype=pikepdf.Name.Text, IRT=reply, T=KELD, Contents="Then say so.", CreationDate="D:20260306100000Z", NM="reply-2"))
    reply.F = 30
    add(dict(Subtype=pikepdf.Name.Text, IRT=target, T="Ines Tarrow", Contents="", State="Accepted", StateModel="Review", CreationDate="D:20260305101000Z", NM="state-1"))
    add(dict(Subtype=pikepdf.Name.Text, IRT=target, T="Ines Tarrow", Contents="", State="Completed", StateModel="Review", CreationDate="D:20260307101000Z", NM="state-2"))
    copy = pdf.make_indirect(pikepdf.Dictionary(target))
    copy.F = 2
    annots.append(copy)
    cut = by_text["Cut."]
    add(dict(Subtype=pikepdf.Name.Caret, IRT=cut, RT=pikepdf.Name.Group, T=KELD, Contents="paced the line", CreationDate="D:20260302095100Z", NM="group-1"))
    def corners(words):
        """The corners of found words in the page's own coordinates, somewhat widened."""
        box, height = FOUND[words][0].rect, float(page.mediabox[3])
        left, right, top, bottom = box.x0 - 4, box.x1 + 4, height - box.y0 + 4, height - box.y1 - 4
        return [left, top, right, top, right, bottom, left, bottom]


    ring = corners("plank 5")
    add(dict(Subtype=pikepdf.Name.Polygon, Vertices=ring, C=[0.4, 0.8, 0.4], T=WRAY, Contents="And plank 4?", CreationDate="D:20260303141700Z")).Rect = [ring[0], ring[5], ring[2], ring[1]]
    after = corners("in one week")
    add(dict(Subtype=pikepdf.Name.Caret, C=[0.2, 0.4, 0.8], T=KELD, Contents="of dry weather", CreationDate="D:20260302101000Z")).Rect = [after[2] - 6, after[5], after[2] + 2, after[5] + 8]
    add(dict(Subtype=pikepdf.Name.Stamp, Name=pikepdf.Name.Approved, T=KELD, Contents="Seen", CreationDate="D:20260302102000Z")).Rect = [430, 740, 540, 780]
    sheet = pdf.make_stream(b"plank,litres\n3,41\n5,18\n")
    add(dict(Subtype=pikepdf.Name.FileAttachment, FS=pikepdf.Dictionary(Type=pikepdf.Name.Filespec, F="leaks.csv", UF="leaks.csv", EF=pikepdf.Dictionary(F=sheet)), T=KELD, Contents="the night’s figures", CreationDate="D:20260302103000Z"))
    add(dict(Subtype=pikepdf.Name.PolyLine, Vertices=[70, 280, 100, 270, 130, 280], C=[0.2, 0.4, 0.8], T=WRAY, Contents="", CreationDate="D:20260303141600Z"))
    loop = add(dict(Subtype=pikepdf.Name.Text, T=WRAY, Contents="This one answers itself.", CreationDate="D:20260303150000Z", NM="loop-1"))
    loop.IRT = loop
    rich = add(dict(Subtype=pikepdf.Name.Text, T=WRAY, CreationDate="D:20260303151000Z", NM="rich-1"))
    rich.RC = pikepdf.String('<?xml version="1.0"?><body xmlns="http://www.w3.org/1999/xhtml"><p>Look <b>here</b> &amp; there.</p><p>Twice.</p></body>')
    add(dict(Subtype=pikepdf.Name("/Compass"), T=WRAY, Contents="north", NM="odd-1"))
    pdf.save(path("kinds.pdf"))
    pdf.close()
    os.remove(path("kinds-0.pdf"))


# 2. Two columns with cut words and ligatures, text to the left, pages turned, a crop box that is shifted; in two revisions.
MARKS = [
    (0, "highlight", "uppermost moss layer", "Name the layer."),
    (0, "underline", "accelerated considerably", "By how much?"),
    (0, "strikeout", "Comparable investigations elsewhere demonstrated", "Which ones?"),
    (0, "highlight", "Interdisciplinary fieldwork distinguishes infiltration from evapotranspiration only approximately", "Too many long words."),
    (0, "underline", "demonstrated corresponding improvements", "In what?"),
    (0, "highlight", "efficient offices file the findings", "Not your topic."),
    (0, "highlight", "After the second winter the eastern hollow stayed wet until June", "Your best sentence."),
    (1, "highlight", "another script", "Good."),
    (1, "underline", "المستنقع يحفظ الماء", "Translate this."),
]


def places(page, words):
    """The first place of words on a page, line by line, by MuPDF's list of words; cut words count as their parts."""
    flat = page.get_text("words")
    if re.search("[\u0600-\u06ff]", words):
        # MuPDF may tell words that run to the left letter by letter from the left.
        return [fitz.Rect(w[:4]).quad for w in flat if w[4] in words.split() or w[4][::-1] in words.split()]
    wanted = re.sub(r"\s", "", words)
    for i in range(len(flat)):
        run, length = "", 0
        for j in range(i, min(len(flat), i + 30)):
            word = flat[j][4]
            run += re.sub(r"[\-\u2010\u00ad]$", "", word)
            if re.sub(r"[.,;]$", "", run) == wanted:
                return [fitz.Rect(w[:4]).quad for w in flat[i:j + 1]]
            if not wanted.startswith(run):
                break
    raise SystemExit("not found: " + words)


def mark_all(name, rotate=0, crop=None):
    doc = fitz.open(path("transects-plain.pdf"))
    all_quads = [places(doc[number], words) for number, _, words, _ in MARKS]
    pages = [page for page in doc]
    for (number, kind, words, text), quads in zip(MARKS, all_quads):
        annot = getattr(pages[number], f"add_{kind}_annot")(quads=quads)
        stamp(annot, KELD, text, "D:20260302091500Z", YELLOW)
    for page in pages:
        if rotate:
            page.set_rotation(rotate)
        if crop:
            page.set_cropbox(fitz.Rect(*crop))
    doc.save(path(name), garbage=3, deflate=True)
    doc.close()


if PART == "transects":
    mark_all("transects.pdf")
    mark_all("transects-turned.pdf", rotate=90)
    mark_all("transects-upside.pdf", rotate=270, crop=(40, 30, 560, 780))
    doc = fitz.open(path("transects.pdf"))
    later = doc[1]
    search(later, "warden’s note")
    mark(later, "highlight", "warden’s note", WRAY, "Added later.", "D:20260310120000Z", GREEN)
    doc.save(path("transects.pdf"), incremental=True, encryption=fitz.PDF_ENCRYPT_KEEP)
    doc.close()


if PART == "sideways":
    # 3. A page whose text itself is turned, and files that can't be read just so.
    doc = fitz.open()
    page = doc.new_page(width=400, height=300)
    page.insert_text((60, 280), "Levels fell by nine millimetres each week.", fontsize=11, rotate=90)
    page.insert_text((90, 280), "They rose again after rain in May.", fontsize=11, rotate=90)
    search(page, "nine millimetres")
    mark(page, "highlight", "nine millimetres", KELD, "At which well?", "D:20260302091500Z", YELLOW)
    doc.save(path("sideways.pdf"))
    doc.close()
    for name, options in (
        ("locked.pdf", ["--encrypt", "peat", "peat", "256", "--"]),
        ("locked-old.pdf", ["--allow-weak-crypto", "--encrypt", "peat", "peat", "128", "--"]),
    ):
        subprocess.run(["qpdf", *options, path("sideways.pdf"), path(name)], check=True)



# The truth: annotations as qpdf tells them, the words under each as poppler has them on the page.
def poppler_words(name, number):
    html = subprocess.run(["pdftotext", "-bbox", "-cropbox", "-f", str(number), "-l", str(number), path(name), "-"], capture_output=True, check=True).stdout
    root = ET.fromstring(re.sub(rb' xmlns="[^"]+"', b"", html))
    return [(w.text, *(float(w.get(k)) for k in ("xMin", "yMin", "xMax", "yMax"))) for w in root.iter("word")]


def shown_point(page, x, y):
    """A point of the page as poppler counts: from the upper left corner of the crop box, turned as it is shown."""
    left, bottom, right, top = (float(v) for v in page.cropbox)
    turn = int(page.obj.get("/Rotate", 0)) % 360
    x, y = x - left, y - bottom
    w, h = right - left, top - bottom
    return {0: (x, h - y), 90: (y, x), 180: (w - x, y), 270: (h - y, w - x)}[turn]


def iso(text):
    found = re.match(r"D:(\d{4})(\d\d)(\d\d)(\d\d)(\d\d)(\d\d)(?:([+-])(\d\d)'(\d\d)')?", text or "")
    if not found:
        return None
    import datetime
    at = datetime.datetime(*map(int, found.groups()[:6]))
    if found.group(7):
        shift = datetime.timedelta(hours=int(found.group(8)), minutes=int(found.group(9)))
        at = at - shift if found.group(7) == "+" else at + shift
    return at.strftime("%Y-%m-%dT%H:%M:%S.000Z")


def truth_of(name):
    pdf = pikepdf.open(path(name))
    found = []
    for number, page in enumerate(pdf.pages, 1):
        words = poppler_words(name, number)
        for annot in page.get("/Annots", []):
            kind = str(annot.Subtype)[1:].lower()
            if kind in ("popup", "link", "compass") or ("/IRT" in annot and str(annot.get("/NM", "")) != "loop-1") or int(annot.get("/F", 0)) == 2:
                continue
            exact = None
            if kind in ("highlight", "underline", "squiggly", "strikeout"):
                numbers = [float(n) for n in annot.QuadPoints]
                boxes = []
                for i in range(0, len(numbers), 8):
                    points = [shown_point(page, numbers[i + j], numbers[i + j + 1]) for j in (0, 2, 4, 6)]
                    boxes.append((min(p[0] for p in points), min(p[1] for p in points), max(p[0] for p in points), max(p[1] for p in points)))
                def whole(w):
                    # Along the line nearly all of it, across the line somewhat less.
                    x, y = (3, 1) if int(page.obj.get("/Rotate", 0)) % 180 else (1, 3)
                    return any(b[0] - x <= w[1] and w[3] <= b[2] + x and b[1] - y <= w[2] and w[4] <= b[3] + y for b in boxes)

                # A word of poppler's brings its full stop along; it counts where the mark reaches over all of the word.
                hit = [w[0] if whole(w) else re.sub(r"[.,;]$", "", w[0]) for w in words if any(b[0] <= (w[1] + w[3]) / 2 <= b[2] and b[1] <= (w[2] + w[4]) / 2 <= b[3] for b in boxes)]
                # A word cut at a line's end comes in two.
                exact = re.sub(r"[-\u2010\u00ad] (?=[a-z])", "", " ".join(hit))
                if re.search("[\u0600-\u06ff]", exact):
                    exact = exact[::-1]
            color = [round(float(c) * 255) for c in annot.get("/C", [])]
            found.append({
                "kind": kind,
                "page": number,
                "author": str(annot.get("/T", "")),
                "created": iso(str(annot.get("/CreationDate", ""))),
                "color": "#%02x%02x%02x" % tuple(color) if len(color) == 3 and kind != "freetext" else None,
                "exact": exact,
                "text": str(annot.get("/Contents", "")),
            })
    return found


if PART == "truth":
    truth = {name: truth_of(name) for name in ("kinds.pdf", "transects.pdf", "transects-turned.pdf", "transects-upside.pdf", "sideways.pdf")}
    json.dump(truth, open(path("pdf-truth.json"), "w"), ensure_ascii=False, indent=1)
