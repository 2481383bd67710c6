#!/bin/sh
# Makes the spoken comments of the demo from their words, with espeak-ng and ffmpeg (Debian packages), and their
# transcripts: a cue for each sentence, timed by its share of the letters.
set -e
cd "$(dirname "$0")"
speak() {
  espeak-ng -v "$2" -s 150 -w "/tmp/$1.wav" -f "$1-spoken.txt"
  ffmpeg -loglevel error -y -i "/tmp/$1.wav" -ar 24000 -ac 1 -c:a libopus -b:a 20k "$1-spoken.ogg"
  python3 - "$1" "$3" <<'PY'
import re, subprocess, sys
name, who = sys.argv[1:]
length = float(subprocess.check_output(
    ['ffprobe', '-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', f'{name}-spoken.ogg']))
sentences = re.split(r'(?<=[.?!]) ', ' '.join(open(f'{name}-spoken.txt').read().split()))
letters = sum(map(len, sentences))
def clock(seconds): return f'00:{int(seconds // 60):02d}:{seconds % 60:06.3f}'
lines, at = ['WEBVTT', ''], 0.0
for sentence in sentences:
    to = min(length, at + length * len(sentence) / letters)
    lines += [f'{clock(at)} --> {clock(to)}', f'<v {who}>{sentence}', '']
    at = to
open(f'{name}-spoken.vtt', 'w').write('\n'.join(lines))
PY
}
speak keld en-gb+f3 'Dr Aune Keld'
speak wray en-gb+m3 'Pascoe Wray'
