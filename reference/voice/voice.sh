#!/bin/sh
# Makes the dry voice that ships: our own sentences by speech synthesis, 48 kHz mono. Needs espeak-ng, sox and flac.
set -e
text="The leaf in my left hand has a smooth edge. The one in my right hand is toothed, like a small saw."
work=$(mktemp -d)
espeak-ng -v en-gb -s 145 -p 42 -g 2 -w "$work/spoken.wav" "$text"
# Silence before and after, no rumble, the synthesiser's 22 kHz brought to 48, about -23 LUFS.
sox "$work/spoken.wav" -b 16 -r 48000 -c 1 "$work/dry.wav" highpass 70 pad 0.25 0.75 gain -n -6
flac --silent --best --force -o ../../crates/recording/assets/dry-voice.flac "$work/dry.wav"
rm -r "$work"
