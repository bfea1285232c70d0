#!/usr/bin/env bash
# Makes the sounds and the picture of The Salt Ferry, our own invented documentary short, from Debian's free speech
# voices, a synthesiser and noise. Run by hand when the material is to change; its results are in the repository.
# Needs: flite espeak-ng sox fluidsynth fluid-soundfont-gm ffmpeg php
set -euo pipefail
here=$(cd "$(dirname "$0")" && pwd)
out=$here/media
tmp=$(mktemp -d); trap 'rm -rf "$tmp"' EXIT
mkdir -p "$out"; rm -f "$out"/*
cd "$tmp"
sox() { command sox -R -V1 "$@"; }
encode() { ffmpeg -v error -y -i "$1" -map_metadata -1 -fflags +bitexact -flags:a +bitexact "${@:3}" "$2"; }

# say VOICE SPEED NAME TEXT...   one sentence after the other, with pauses; notes where each starts and ends (seconds)
say() {
  local voice=$1 speed=$2 name=$3 n=0 at=0.6 length; shift 3
  sox -n -r 48000 -c 1 -b 16 gap.wav trim 0 0.6
  local parts=(gap.wav)
  for text in "$@"; do
    flite -voice "$voice" --setf duration_stretch="$speed" -t "$text" -o raw.wav
    sox raw.wav -r 48000 -c 1 "part-$name-$n.wav" silence 1 0.05 0.4% reverse silence 1 0.05 0.4% reverse norm -6
    length=$(soxi -D "part-$name-$n.wav")
    echo "$name $n $at $length" >>"$tmp/cuts"
    sox -n -r 48000 -c 1 -b 16 "pause-$n.wav" trim 0 1.4
    parts+=("part-$name-$n.wav" "pause-$n.wav")
    at=$(php -r "printf('%.5f', $at + $length + 1.4);")
    n=$((n + 1))
  done
  sox "${parts[@]}" "$name.wav"
}

# Recorded close and dry.
say slt 1.12 narrator \
  "Every night, when the tide turns, a small ferry crosses the channel. It carries forty workers and one lamp." \
  "On the far shore lie the salt pans. By day they are white. By night you only hear them." \
  "Nobody remembers a year without the ferry. Everybody remembers a night without it." \
  "The engine is older than the pilot. It has been taken apart so often that no one dares to count the screws." \
  "Half way across, the lights of the village go out behind the dyke. For ten minutes there is only water." \
  "The salt takes everything in the end. The rope, the rail, the paint, the voice." \
  "At the landing they leave in silence. The work begins at three." \
  "Then the ferry turns around, empty, and goes home before the tide does."
# A close microphone: boomy and loud, with a hatch that slams in the middle of a sentence, and dead air at the head.
say rms 1.05 wheelhouse-dry \
  "You steer by the sound. If the bow is quiet, you are in the deep part." \
  "In fog I switch the engine off and listen. Then I count to twenty, and I know where we are." \
  "My father had the night boat before me. He said, never talk before the second buoy." \
  "People ask if I am afraid. I am only afraid of the new timetable."
sox -n -r 48000 -c 1 slam.wav synth 0.35 brownnoise synth 0.35 sine mix 70 fade q 0.001 0.35 0.32 gain -0.5
# Far from the microphone, on deck: thin, quiet, in the wind.
say rms 1.05 deck-dry \
  "That over there is the old landing. Nobody uses it now." \
  "You smell the pans before you see them." \
  "When the horn sounds, hold the rail. It is louder than you think." \
  "The gulls know the timetable better than we do."
# Two people in one stereo file: the narrator asks on the left, the deckhand answers on the right.
say slt 1.1 ask "How many crossings have you made?" "And how many of them do you remember?"
say rms 1.05 reply "I stopped counting at nine thousand." "The first one. And the one with the horses."

sox wheelhouse-dry.wav wheelhouse-tone.wav bass +9 180 gain -n -4
sox -n -r 48000 -c 1 dead.wav trim 0 4.2
sox dead.wav wheelhouse-tone.wav wheelhouse-long.wav
slam_at=$(awk '$1 == "wheelhouse-dry" && $2 == 1 {printf "%.3f", $3 + 4.2 + 2.1}' cuts)
sox slam.wav slam-placed.wav pad "$slam_at"
sox -m -v 0.75 wheelhouse-long.wav -v 1 slam-placed.wav wheelhouse.wav gain -n -0.3
sox deck-dry.wav deck-thin.wav highpass 320 treble -5 gain -3 reverb 22 40 60
deck_length=$(soxi -D deck-thin.wav)
sox -n -r 48000 -c 1 wind.wav synth "$deck_length" brownnoise tremolo 0.13 60 gain -40
sox -m deck-thin.wav wind.wav deck.wav
sox ask.wav l.wav pad 0 "$(soxi -D reply.wav)"; sox reply.wav r.wav pad "$(soxi -D ask.wav)"
sox -M l.wav r.wav pair.wav gain -2

encode narrator.wav "$out/narrator.ogg" -c:a libvorbis -q:a 5
encode wheelhouse.wav "$out/deckhand-wheelhouse.flac" -c:a flac -compression_level 12
encode deck.wav "$out/deckhand-far-mic.opus" -c:a libopus -b:a 56k
encode pair.wav "$out/two-voices.flac" -c:a flac -compression_level 12

# Music: our own few bars, written by score.php and played with Debian's free soundfont.
for tune in slow departure; do
  php "$here/score.php" "$tune" >"$tune.mid"
  fluidsynth -ni -q -r 48000 -g 0.9 -F "$tune.wav" /usr/share/sounds/sf2/FluidR3_GM.sf2 "$tune.mid" >/dev/null 2>&1
  sox "$tune.wav" "$tune-level.wav" gain -n -1.5
done
encode slow-level.wav "$out/slow-accordion.ogg" -c:a libvorbis -q:a 4
encode departure-level.wav "$out/departure.mp3" -c:a libmp3lame -b:a 160k

sox -n -r 48000 -c 2 hum.wav synth 96 brownnoise brownnoise synth 96 sine mix 54 sine mix 55 tremolo 6.5 25 lowpass 900 gain -n -9 fade t 1 96 1
encode hum.wav "$out/engine-hum.m4a" -c:a aac -b:a 96k
sox -n -r 48000 -c 2 waves.wav synth 120 pinknoise pinknoise tremolo 0.11 85 lowpass 2200 highpass 120 gain -n -14 fade t 2 120 2
encode waves.wav "$out/shore.ogg" -c:a libvorbis -q:a 2
sox -n -r 48000 -c 1 -b 16 "$out/rope.wav" synth 2.6 sawtooth 62:95 tremolo 17 90 bandpass 700 500 fade t 0.2 2.6 1 gain -n -8
sox -n -r 44100 -c 2 -b 16 horn.wav synth 3.6 sawtooth 147 sawtooth 148 synth 3.6 sawtooth mix 185 sawtooth mix 186 lowpass 1600 fade t 0.08 3.6 0.5 gain -n -0.1
encode horn.wav "$out/horn.flac" -c:a flac
for i in 1 2 3 4 5; do sox -n -r 48000 -c 1 "gull$i.wav" synth 0.5 sine $((1500 + 90 * i)):$((1050 + 40 * i)) synth 0.5 sine amod 24 fade t 0.04 0.5 0.3 gain -9 pad $((i % 3)).$i 0.4; done
sox gull1.wav gull2.wav gull3.wav gull4.wav gull5.wav gulls.wav reverb 40
encode gulls.wav "$out/gulls.mp3" -c:a libmp3lame -b:a 96k

# The picture, drawn shot by shot by film/, with the camera's own poor sound.
sox -n -r 48000 -c 1 guide.wav synth 336 pinknoise tremolo 0.2 40 lowpass 1500 gain -30
php -d opcache.enable_cli=1 -d opcache.jit_buffer_size=64M -d opcache.jit=tracing "$here/film/film.php" |
  ffmpeg -v error -y -f rawvideo -pix_fmt rgb24 -s 1280x720 -r 12.5 -i - -i guide.wav -vf scale=640:360:flags=lanczos \
    -map_metadata -1 -fflags +bitexact -c:v libx264 -crf 29 -preset slow -pix_fmt yuv420p -movflags +faststart -c:a aac -b:a 32k -shortest "$out/crossing-picture.mp4"

sed 's/wheelhouse-dry/wheelhouse/; s/deck-dry/deck/' cuts | awk '$1 == "wheelhouse" {$3 += 4.2} {print}' >"$here/cuts.txt"
ls -l "$out"; du -sh "$out"
