"""The same remarks in five formats: Word and ODT by LibreOffice, PDF by MuPDF, XFDF and Web Annotation from what MuPDF and
poppler say of that PDF. Answers are written into each by this script, since LibreOffice 7.4 writes none. Run by make.sh."""
import json
import os
import re
import shutil
import subprocess
import sys
import zipfile
from xml.sax.saxutils import escape, quoteattr

import fitz
import pikepdf

OUT = os.path.abspath(sys.argv[1])
ANSWERS = {
    "Measured how often?": [("Ines Tarrow", "Once, on the second night.", "2026-03-05T10:00:00Z"), ("Dr Aune Keld", "Then it is one figure.", "2026-03-06T11:30:00Z")],
    "Which two? Name them here.": [("Ines Tarrow", "Planks 3 and 5.", "2026-03-05T10:10:00Z")],
}


def path(name):
    return os.path.join(OUT, name)


remarks = json.load(open(path("writer-truth.json")))["dams.odt"]
for remark in remarks:
    remark["replies"] = [dict(author=a, text=t, created=w) for a, t, w in ANSWERS.get(remark["text"], [])]
    remark["state"] = None
json.dump(remarks, open(path("same-truth.json"), "w"), ensure_ascii=False, indent=1)


def rewrite(source, target, change):
    """A copy of an archive with some of its parts changed."""
    with zipfile.ZipFile(source) as old, zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as new:
        for item in old.infolist():
            new.writestr(item, change(item.filename, old.read(item.filename)))


# Word: an answer is a comment of its own over the same words; commentsExtended says whom it answers.
def word(name, data):
    if name == "word/comments.xml":
        text = data.decode()
        number, extended = 100, []
        for words, answers in ANSWERS.items():
            parent = re.search(r'<w:comment w:id="(\d+)"[^>]*><w:p[^>]*>(?=<w:r><w:t>' + re.escape(words) + ")", text)
            para = "0A%06X" % (int(parent.group(1)) + 1)
            opened = re.sub(r"<w:p( [^>]*)?>$", '<w:p w14:paraId="%s">' % para, parent.group(0))
            text = text.replace(parent.group(0), opened)
            extended.append('<w15:commentEx w15:paraId="%s" w15:done="0"/>' % para)
            above = para
            for author, answer, when in answers:
                own = "0B%06X" % number
                text = text.replace("</w:comments>", '<w:comment w:id="%d" w:author=%s w:date="%s" w:initials=""><w:p w14:paraId="%s"><w:r><w:t>%s</w:t></w:r></w:p></w:comment></w:comments>' % (number, quoteattr(author), when, own, escape(answer)))
                extended.append('<w15:commentEx w15:paraId="%s" w15:paraIdParent="%s" w15:done="0"/>' % (own, above))
                above = own
                number += 1
        word.extended = extended
        return text.encode()
    if name == "word/commentsExtended.xml":
        return re.sub(r"<w15:commentEx [^>]*/>", "", data.decode()).replace("</w15:commentsEx>", "".join(word.extended) + "</w15:commentsEx>").encode()
    return data


rewrite(path("dams.docx"), path("same.docx"), word)


# ODT: an answer names the annotation that it answers.
def odt(name, data):
    if name != "content.xml":
        return data
    text = data.decode()
    number = 0
    for words, answers in ANSWERS.items():
        parent = re.search(r'<office:annotation office:name="([^"]+)"(?:(?!</office:annotation>).)*?<text:p>' + re.escape(words) + r"</text:p></office:annotation>", text)
        above, made = parent.group(1), ""
        for author, answer, when in answers:
            number += 1
            own = "__Answer__%d" % number
            made += '<office:annotation office:name="%s" loext:parent-name="%s"><dc:creator>%s</dc:creator><dc:date>%s</dc:date><text:p>%s</text:p></office:annotation>' % (own, above, escape(author), when.rstrip("Z"), escape(answer))
            above = own
        text = text.replace(parent.group(0), parent.group(0) + made)
    return re.sub(r' loext:resolved="[a-z]+"', "", text).encode()


rewrite(path("dams.odt"), path("same.odt"), odt)

# PDF: highlights by MuPDF over the same words.
doc = fitz.open(path("dams-plain.pdf"))
page = doc[0]
text = page.get_textpage()
words = page.get_text("words", textpage=text)


def places(wanted):
    wanted = re.sub(r"\s", "", wanted)
    for i in range(len(words)):
        run = ""
        for j in range(i, len(words)):
            # Bullets of lists stand on the page, not in the words that a comment is about.
            part = re.sub(r"^[•\uf0b7]$", "", words[j][4])
            run += part
            if re.sub(r"[.,;]$", "", run) == wanted:
                lines = {}
                for w in words[i:j + 1]:
                    rect = fitz.Rect(w[:4])
                    if w is words[j] and run != wanted:
                        # Without the full stop that MuPDF counts to the word.
                        rect = next(hit for hit in page.search_for(w[4].rstrip(".,;"), textpage=text) if hit in rect + (-1, -1, 1, 1))
                    lines.setdefault((w[5], w[6]), []).append(rect)
                return [fitz.Rect(min(r.x0 for r in rs), min(r.y0 for r in rs), max(r.x1 for r in rs), max(r.y1 for r in rs)).quad for rs in lines.values()]
            if not wanted.startswith(run):
                break
    raise SystemExit("not found: " + wanted)


all_quads = [places(remark["exact"]) for remark in remarks]
for remark, quads in zip(remarks, all_quads):
    annot = page.add_highlight_annot(quads=quads)
    when = "D:" + re.sub(r"[-T:]", "", remark["created"]) + "00Z"
    annot.set_info(title=remark["author"], content=remark["text"], creationDate=when, modDate=when)
    annot.update()
doc.save(path("same-0.pdf"))
pdf = pikepdf.open(path("same-0.pdf"))
annots = pdf.pages[0].Annots
for annot in list(annots):
    above = annot
    for author, answer, when in ANSWERS.get(str(annot.get("/Contents", "")), []):
        above = pdf.make_indirect(pikepdf.Dictionary(Type=pikepdf.Name.Annot, Subtype=pikepdf.Name.Text, Rect=[10, 10, 30, 30], F=30, IRT=above, T=author, Contents=answer, CreationDate="D:" + re.sub(r"[-T:Z]", "", when) + "Z"))
        annots.append(above)
pdf.save(path("same.pdf"))
os.remove(path("same-0.pdf"))

# XFDF: the same quads, as qpdf tells them.
parts = []
for number, annot in enumerate(a for a in pdf.pages[0].Annots if str(a.Subtype) == "/Highlight"):
    def attributes(a):
        return "title=%s date=%s creationdate=%s" % (quoteattr(str(a.T)), quoteattr(str(a.CreationDate)), quoteattr(str(a.CreationDate)))
    coords = ",".join("%.3f" % float(n) for n in annot.QuadPoints)
    rect = ",".join("%.3f" % float(n) for n in annot.Rect)
    contents = str(annot.get("/Contents", ""))
    parts.append('<highlight page="0" rect="%s" coords="%s" color="#F5D940" name="same-%d" %s>%s</highlight>' % (rect, coords, number, attributes(annot), "<contents>%s</contents>" % escape(contents) if contents else ""))
    above = "same-%d" % number
    for index, (author, answer, when) in enumerate(ANSWERS.get(contents, [])):
        own = "%s-%d" % (above, index)
        stamp = "D:" + re.sub(r"[-T:Z]", "", when) + "Z"
        parts.append('<text page="0" rect="10,10,30,30" name="%s" inreplyto="%s" title=%s date="%s" creationdate="%s"><contents-richtext><body xmlns="http://www.w3.org/1999/xhtml"><p>%s</p></body></contents-richtext></text>' % (own, above, quoteattr(author), stamp, stamp, escape(answer)))
        above = own
open(path("same.xfdf"), "w").write('<?xml version="1.0" encoding="UTF-8"?>\n<xfdf xmlns="http://ns.adobe.com/xfdf/" xml:space="preserve"><f href="dams-plain.pdf"/><annots>%s</annots></xfdf>\n' % "".join(parts))

# Web Annotation: quotations with what poppler has before and behind them.
flat = re.sub(r"\s+", " ", re.sub(r"[•\uf0b7]", " ", subprocess.run(["pdftotext", "-raw", path("dams-plain.pdf"), "-"], capture_output=True, check=True, text=True).stdout)).strip()
items = []
for number, remark in enumerate(remarks):
    at = flat.index(remark["exact"])
    end = at + len(remark["exact"])
    iri = "urn:x-samples:remark-%d" % number
    items.append({
        "id": iri, "type": "Annotation", "motivation": "commenting", "created": remark["created"] + ":00Z",
        "creator": {"type": "Person", "name": remark["author"]},
        **({"body": {"type": "TextualBody", "value": remark["text"], "format": "text/plain"}} if remark["text"] else {}),
        "target": {"source": "dams-plain.pdf", "selector": [
            {"type": "TextPositionSelector", "start": 999999, "end": 1000003},
            {"type": "TextQuoteSelector", "exact": remark["exact"], "prefix": flat[max(0, at - 32):at], "suffix": flat[end:end + 32]},
        ]},
    })
    above = iri
    for index, answer in enumerate(remark["replies"]):
        own = "%s-%d" % (above, index)
        items.append({"id": own, "type": "Annotation", "motivation": "replying", "created": answer["created"], "creator": {"type": "Person", "name": answer["author"]}, "body": {"type": "TextualBody", "value": answer["text"]}, "target": above})
        above = own
json.dump({"@context": "http://www.w3.org/ns/anno.jsonld", "id": "urn:x-samples:page", "type": "AnnotationPage", "items": items}, open(path("same.jsonld"), "w"), ensure_ascii=False, indent=1)
