"""The same short paper set by four programs: as HTML for Chromium and LibreOffice, for groff and for pdfTeX."""
import json, re, subprocess, sys, os, html, shutil
from PIL import Image, ImageDraw

here = os.path.dirname(os.path.abspath(__file__))
out = sys.argv[1]
os.makedirs(out, exist_ok=True)
paper = json.load(open(os.path.join(here, 'starts.json')))

# The picture: the bed of the ditch as a line.
picture = Image.new('RGB', (900, 300), 'white')
draw = ImageDraw.Draw(picture)
draw.line([(40, 80), (220, 110), (420, 120), (520, 190), (700, 170), (860, 240)], fill=(30, 60, 90), width=6)
for n, x in enumerate((60, 400, 800)):
    draw.rectangle([x, 40, x + 14, 230], fill=(120, 80, 40))
draw.line([(30, 280), (870, 280)], fill='black', width=3)
picture.save(os.path.join(out, 'bed.png'))


def grouped():
    """Items that follow one another, together."""
    groups = []
    for block in paper['blocks']:
        if block['kind'] == 'item' and groups and groups[-1][0] == 'items' and groups[-1][1] == block.get('ordered', False):
            groups[-1][2].append(block)
        elif block['kind'] == 'item':
            groups.append(('items', block.get('ordered', False), [block]))
        else:
            groups.append((block['kind'], None, [block]))
    return groups


def as_html(notes_inline):
    parts = []
    for kind, ordered, blocks in grouped():
        if kind == 'items':
            tag = 'ol' if ordered else 'ul'
            parts.append(f'<{tag}>' + ''.join(f'<li>{html.escape(b["text"])}</li>' for b in blocks) + f'</{tag}>')
            continue
        block = blocks[0]
        text = html.escape(block.get('text', ''))
        text = re.sub(r'\{(\d)\}', notes_inline, text)
        if kind == 'heading':
            parts.append(f'<h{block["level"]}>{text}</h{block["level"]}>')
        elif kind == 'paragraph':
            parts.append(f'<p>{text}</p>')
        elif kind == 'table':
            rows = ''.join('<tr>' + ''.join(f'<td>{html.escape(c)}</td>' for c in row) + '</tr>' for row in block['rows'])
            parts.append(f'<table border="1" cellpadding="4" cellspacing="0" width="60%">{rows}</table>')
        elif kind == 'picture':
            parts.append(f'<p><img src="bed.png" width="420" height="140"></p><p>{text}</p>')
    return '\n'.join(parts)


# Chromium prints no footnotes at the foot: they stand as a list of their own at the end, raised numbers before them.
notes = ''.join(f'<p class="note"><sup>{n + 1}</sup> {html.escape(t)}</p>' for n, t in enumerate(paper['notes']))
style = ('@page { size: A4; margin: 25mm } body { font: 11pt/1.4 "DejaVu Serif", serif } h1 { font-size: 20pt }'
         ' h2 { font-size: 14pt } h3 { font-size: 11.5pt; font-style: italic } sup { font-size: 7pt; line-height: 0 }'
         ' .note { font-size: 8.5pt; margin: 2pt 0 } hr { margin-top: 20pt; width: 30%; margin-left: 0 } td { padding: 2pt 14pt }')
with open(os.path.join(out, 'chromium.html'), 'w') as f:
    f.write(f'<!doctype html><html lang="en"><meta charset="utf-8"><style>{style}</style><body>'
            + as_html(lambda m: f'<sup>{m[1]}</sup>') + '<hr>' + notes + '</body></html>')
# LibreOffice makes footnotes of these links.
links = lambda m: f'<a class="sdfootnoteanc" name="sdfootnote{m[1]}anc" href="#sdfootnote{m[1]}sym"><sup>{m[1]}</sup></a>'
divs = ''.join(f'<div id="sdfootnote{n + 1}"><p class="sdfootnote"><a class="sdfootnotesym" name="sdfootnote{n + 1}sym" '
               f'href="#sdfootnote{n + 1}anc">{n + 1}</a>{html.escape(t)}</p></div>' for n, t in enumerate(paper['notes']))
with open(os.path.join(out, 'writer.html'), 'w') as f:
    f.write('<!doctype html><html lang="en"><meta charset="utf-8"><body>' + as_html(links) + divs + '</body></html>')


def tex(text):
    text = re.sub(r'([&%$#_])', r'\\\1', text)
    return re.sub(r'\{(\d)\}', lambda m: '\\footnote{' + paper['notes'][int(m[1]) - 1] + '}', text).replace('’', "'")


lines = [r'\documentclass[11pt,a4paper]{article}', r'\usepackage{graphicx}',
         r'\setcounter{secnumdepth}{0}', r'\begin{document}']
for kind, ordered, blocks in grouped():
    block = blocks[0]
    if kind == 'items':
        env = 'enumerate' if ordered else 'itemize'
        lines += [rf'\begin{{{env}}}', *(rf'\item {tex(b["text"])}' for b in blocks), rf'\end{{{env}}}']
    elif kind == 'heading':
        lines.append(rf'{{\LARGE {tex(block["text"])}\par}}\bigskip' if block['level'] == 1
                     else rf'\{"sub" * (block["level"] - 2)}section{{{tex(block["text"])}}}')
    elif kind == 'paragraph':
        lines += [tex(block['text']), '']
    elif kind == 'table':
        lines += [r'\begin{center}\begin{tabular}{lrr}\hline', *(' & '.join(map(tex, row)) + r' \\ \hline' for row in block['rows']),
                  r'\end{tabular}\end{center}', '']
    elif kind == 'picture':
        lines += [r'\begin{center}\includegraphics[width=9cm]{bed.png}\end{center}', '', tex(block['text']), '']
lines.append(r'\end{document}')
with open(os.path.join(out, 'tex.tex'), 'w') as f:
    f.write('\n'.join(lines))


def roff(text):
    return re.sub(r'\{(\d)\}', lambda m: r'\*{' + m[1] + r'\*}', text).replace('’', r'\[cq]').replace('“', r'\[lq]').replace('”', r'\[rq]')


lines = ['.nr PS 11', '.nr VS 14']
for kind, ordered, blocks in grouped():
    block = blocks[0]
    if kind == 'items':
        for n, b in enumerate(blocks):
            lines += [f'.IP {n + 1}. 4' if ordered else r'.IP \[bu] 3', roff(b['text'])]
    elif kind == 'heading' and block['level'] == 1:
        lines += ['.LP', r'.ps 18', '.vs 22', r'\fB' + roff(block['text']) + r'\fP', '.br', '.ps 11', '.vs 14']
    elif kind == 'heading':
        lines += ['.sp 0.4', '.LP', rf'\s{"+3" if block["level"] == 2 else "+1"}\fB' + roff(block['text']) + r'\fP\s0', '.br']
    elif kind == 'paragraph':
        lines += ['.LP', roff(block['text'])]
        for n in re.findall(r'\{(\d)\}', block['text']):
            lines += ['.FS', n + '. ' + roff(paper['notes'][int(n) - 1]), '.FE']
    elif kind == 'table':
        lines += ['.TS', 'center box;', 'l r r.', *('\t'.join(row) for row in block['rows']), '.TE']
    elif kind == 'picture':
        lines += ['.LP', '.PDFPIC bed.pdf 9c', '.LP', roff(block['text'])]
with open(os.path.join(out, 'roff.ms'), 'w') as f:
    f.write('\n'.join(lines) + '\n')
picture.save(os.path.join(out, 'bed.pdf'))
