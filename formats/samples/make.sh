#!/bin/sh
# Makes the samples anew with programs from Debian's packages; npm test needs none of them.
#   apt-get install libreoffice-writer python3-uno hyphen-en-gb python3-fitz python3-pikepdf poppler-utils qpdf python3-pil espeak-ng ffmpeg libavif-bin chromium texlive-latex-base groff
set -eu
cd "$(dirname "$0")"
soffice --headless --norestore "-env:UserInstallation=file://$(mktemp -d)" "--accept=pipe,name=samples;urp;" &
office=$!
trap 'kill $office' EXIT
sleep 15
/usr/bin/python3 make_media.py .
# The system's own Python: it has LibreOffice's and MuPDF's modules.
/usr/bin/python3 make_writer.py .
# One process a part: MuPDF's Python does not bear many annotations in one.
for part in kinds transects sideways truth; do /usr/bin/python3 mark_pdf.py . $part; done
/usr/bin/python3 make_same.py .
for to in 'docx:MS Word 2007 XML' odt; do
  soffice --headless "-env:UserInstallation=file://$(mktemp -d)" '--infilter=HTML (StarWriter)' --convert-to "$to" rubric.html
done
# A copy with remarks that Juncture wrote, with a tutor's notes.
tutored=$(mktemp -d)
(cd ../.. && npm run --silent juncture -- export formats/samples/same.docx "$tutored/copy.pdf")
/usr/bin/python3 make_tutored.py "$tutored/copy.pdf" tutored.pdf
# Comments over just the same words, as LibreOffice writes them from a Word file that has them: nested.docx is made so once.
# One paper, set by four programs.
starts=$(mktemp -d)
/usr/bin/python3 make_starts.py "$starts"
chromium --headless --no-sandbox --disable-gpu --no-pdf-header-footer --print-to-pdf=starts-chromium.pdf "$starts/chromium.html"
writer() { soffice --headless "-env:UserInstallation=file://$(mktemp -d)" --outdir "$starts" "$@"; }
writer '--infilter=HTML (StarWriter)' --convert-to odt "$starts/writer.html"
writer --convert-to pdf "$starts/writer.odt"
mv "$starts/writer.pdf" starts-writer.pdf
(cd "$starts" && pdflatex -interaction=batchmode tex.tex && groff -U -k -t -ms -Tpdf -P-pa4 roff.ms > groff.pdf)
mv "$starts/tex.pdf" starts-tex.pdf
mv "$starts/groff.pdf" starts-groff.pdf
