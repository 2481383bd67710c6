"""A picture with regions, the same in three formats and turned by its EXIF orientation, and a spoken comment. Run by make.sh."""
import json
import os
import subprocess
import sys

from PIL import Image, ImageDraw

OUT = os.path.abspath(sys.argv[1])
path = lambda name: os.path.join(OUT, name)

image = Image.new("RGB", (320, 480), (250, 247, 240))
draw = ImageDraw.Draw(image)
for i, (depth, tint) in enumerate([(40, (120, 140, 90)), (140, (110, 80, 50)), (260, (80, 60, 45)), (380, (60, 50, 45))]):
    draw.rectangle((110, depth, 210, depth + 90), fill=tint, outline=(30, 42, 44))
    draw.text((222, depth + 4), "layer %d" % (i + 1), fill=(30, 42, 44))
image.save(path("core.png"))
image.save(path("core.webp"), lossless=True)
# GIF by Pillow's own writer, AVIF by libavif's (apt-get install libavif-bin).
image.convert("P").save(path("core.gif"))
subprocess.run(["avifenc", "-s", "8", path("core.png"), path("core.avif")], check=True, stdout=subprocess.DEVNULL)
exif = Image.Exif()
exif[0x0112] = 6
image.rotate(90, expand=True).save(path("core-turned.jpg"), exif=exif, quality=85)

regions = [
    ("Where is the scale?", "Dr Aune Keld", [{"type": "FragmentSelector", "conformsTo": "http://www.w3.org/TR/media-frags/", "value": "xywh=pixel:110,40,100,90"}]),
    ("Is this a gap, or a shadow?", "Dr Aune Keld", [{"type": "SvgSelector", "value": '<svg xmlns="http://www.w3.org/2000/svg"><polygon points="100,130 220,130 220,142 100,142"/></svg>'}]),
    ("Name the moss.", "Pascoe Wray", [{"type": "FragmentSelector", "value": "xywh=percent:30,50,40,25"}]),
    ("This one lies beside the picture.", "Pascoe Wray", [{"type": "FragmentSelector", "value": "xywh=900,900,10,10"}]),
]
json.dump({
    "@context": "http://www.w3.org/ns/anno.jsonld", "type": "AnnotationCollection", "id": "urn:x-samples:core",
    "first": {"type": "AnnotationPage", "items": [
        {"id": "urn:x-samples:core-%d" % i, "type": "Annotation", "motivation": "commenting", "created": "2026-03-02T09:15:00Z",
         "creator": {"type": "Person", "name": author}, "body": {"type": "TextualBody", "value": text},
         "target": {"source": "core.png", "selector": selectors}} for i, (text, author, selectors) in enumerate(regions)]},
}, open(path("core-regions.jsonld"), "w"), ensure_ascii=False, indent=1)

# Spoken with espeak-ng, in every kind of file that browsers play.
SPOKEN = [(0.0, 4.0, "Your core log is clear, and the depths are right."), (4.0, 9.0, "But the legend is missing, so nobody can tell peat from clay.")]
subprocess.run(["espeak-ng", "-v", "en-gb", "-s", "150", "-w", path("spoken.wav"), " ".join(s[2] for s in SPOKEN)], check=True)
for ending, options in (("mp3", ["-b:a", "32k"]), ("ogg", ["-c:a", "libvorbis", "-q:a", "0"]), ("m4a", ["-b:a", "32k"]), ("webm", ["-c:a", "libopus", "-b:a", "16k"])):
    subprocess.run(["ffmpeg", "-v", "error", "-y", "-i", path("spoken.wav"), "-ac", "1", *options, path("spoken." + ending)], check=True)
for ending, options in (("flac", []), ("aac", ["-c:a", "aac", "-f", "adts"])):
    subprocess.run(["ffmpeg", "-v", "error", "-y", "-i", path("spoken.wav"), "-t", "1", *options, path("spoken." + ending)], check=True)
subprocess.run(["ffmpeg", "-v", "error", "-y", "-i", path("spoken.wav"), "-ac", "1", "-ar", "8000", "-c:a", "pcm_u8", path("spoken-small.wav")], check=True)
os.replace(path("spoken-small.wav"), path("spoken.wav"))


def clock(seconds):
    return "%02d:%02d:%06.3f" % (seconds // 3600, seconds % 3600 // 60, seconds % 60)


with open(path("spoken.vtt"), "w") as out:
    out.write("WEBVTT\n\nNOTE made for the samples\n\n")
    for index, (start, end, words) in enumerate(SPOKEN, 1):
        out.write("%d\n%s --> %s align:start\n<v Dr Aune Keld>%s\n\n" % (index, clock(start), clock(end), words))
