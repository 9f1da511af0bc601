#!/usr/bin/env bash
# Makes the demo's takes anew from hand scripts. The same tool makes the same bytes, which a test holds it to.
# Usage: make-takes.sh UBBO FOLDER
set -euo pipefail
ubbo=$1
folder=$2
here=$(cd "$(dirname "$0")" && pwd)

make() {  # [hand=bare] make SCENE NAME SEED EXPECTATION LABEL SCRIPT
  "$ubbo" take make "$6" --scene "$here/$1.scene.toml" --hand "${hand:-gloved}" --seed "$3" --label "$5" --expectation "$4" \
    -o "$folder/$1.$2.take.csv" >/dev/null
}

make inspection drag 11 'frames = 7' 'a gloved finger drags the thumb from 4 towards 7' \
  'press frames.thumb, wait 95 ms, drag right 86 dp over 330 ms, drag left 7 dp over 130 ms, wait 110 ms, lift'
make inspection tap 5 'frames = 9' 'a gloved finger taps the track at 9' 'tap frames.9'
make hive-list tap 3 'taps = 1' 'a tap on a hive' 'tap heather-name'
make hive-list double-tap 4 'taps = 2' 'a double tap' 'double tap heather-name'
make hive-list too-slow 5 'taps = 1' 'a double tap missed: too slow' \
  'tap heather-name.right, wait 520 ms, tap heather-name.right'
make hive-list too-far 6 'taps = 1' 'a double tap missed: too far apart' \
  'tap heather-name.right, wait 180 ms, tap heather-name.centre'
make hive-list long-press 7 'taps = 0' 'a long press' 'press ridge-name, hold 900 ms, lift'
make hive-list scroll 8 'scrolled = -187.5' 'a scroll that begins on a row' \
  'press (200, 560), drag up 200 dp over 400 ms, wait 150 ms, lift'
make hive-list swipe 9 'open = ridge, scrolled = 0' 'a swipe of a row, meant to be level but rising' \
  'press (90, 306), move to (220, 274) over 260 ms, wait 100 ms, lift'
make hive-list water 91 'pressed = 1, taps = 0' 'a row is opened, and its action pressed' \
  'press (90, 306), drag right 130 dp over 260 ms, wait 100 ms, lift, wait 500 ms, tap (48, 300)'
make hive-list stores 14 'tells = Stores, chosen = 1, drawer_open = no' 'another tab, then another apiary from the drawer' \
  'tap (160, 150), wait 700 ms, press (6, 400), drag right 190 dp over 360 ms, wait 60 ms, lift, wait 600 ms,
   tap (132, 162), wait 400 ms, tap (320, 500)'
make hive-list hand-over 10 'sheet = 320, scrolled = 0' 'the list at its end hands the finger to the sheet' \
  'press (200, 500), drag up 110 dp over 300 ms, wait 150 ms, lift, wait 500 ms,
   press (200, 320), drag down 300 dp over 600 ms, wait 120 ms, lift'
make yard-plan pinch 12 'says plan "began to pinch"' 'a pinch on the yard plan' 'pinch out 110 dp at plan over 500 ms'
make yard-plan turn 13 'says plan "began to rotate"' 'a turn of the yard plan' 'rotate 80 degrees at plan'
make inspection brood 21 'brood_from = 2, brood_to = 8' 'the high thumb of the brood frames goes to 8' \
  'press brood.high, wait 90 ms, drag right 76 dp over 300 ms, wait 120 ms, lift'
make inspection queen 22 'queen_seen = yes' 'the queen is seen: a flick of the switch' 'flick right 60 from queen.thumb at 700'
make inspection temper 23 'temper = 4.5' 'a drag along the temper marks' \
  'press (150, 504), wait 60 ms, drag right 130 dp over 400 ms, lift'
make inspection smoker 24 'smoker_lit = yes, saved = 1' 'smoker lit stays down, then the inspection is saved' \
  'tap smoker, wait 500 ms, tap save'
make inspection hover 81 'queen_seen = no, says save "pointer"' 'a mouse passes over the controls and rests on save' \
  'hover to frames.thumb, wait 250 ms, hover to queen.thumb over 260 ms, wait 250 ms, hover to save over 300 ms, wait 350 ms, leave'
make inspection wheel 82 'frames = 7, temper = 2.5' 'a wheel turns over a slider, then over the temper marks' \
  'hover to frames.thumb, wait 150 ms, wheel up 3, wait 500 ms, hover to temper over 300 ms, wait 60 ms, wheel down 1, wait 500 ms, leave'
make hive-list wheel 83 'scrolled = 0, sheet = 320' 'a wheel scrolls the list down and up, and at its end the sheet goes on' \
  'hover to (200, 500), wait 60 ms, wheel down 4, wait 600 ms, wheel up 9, wait 700 ms'
make photos hover 84 'photo = 3' 'a mouse over the photos, a notch of its wheel, and off upwards' \
  'hover to (6, 262), wait 60 ms, hover to (180, 262) over 300 ms, wait 500 ms, wheel down 1, wait 700 ms,
   hover to (180, 150) over 260 ms, wait 400 ms, leave'
make yard-plan trackpad 85 'says plan "began to pinch"' 'two fingers on a trackpad zoom the yard plan' \
  'hover to plan, wait 60 ms, wheel pinch 1.6 over 420 ms, wait 300 ms'
make inspection boxes 38 'boxes = 1, checked.fraction = 1' 'two boxes are checked, one after the other' \
  'wait 100 ms, set boxes 0.75, wait 500 ms, set boxes 1, wait 600 ms'
make photos swipe 25 'photo = 3' 'a swipe to the next frame' 'flick left 120 from (260, 350) at 900'
make photos back 26 'photo = 2' 'a drag that is not far enough, and comes back' \
  'press (240, 350), wait 60 ms, drag left 70 dp over 260 ms, wait 140 ms, lift'
make photos dot 27 'photo = 5' 'a tap on a dot, three frames on' 'tap dots.5'
make photos tab 28 'box = Super' 'the underline goes to another box' 'tap boxes.1'
make visits open 29 'open = quarry' 'two rows swiped: one is open at a time' \
  'press (90, 198), drag right 110 dp over 260 ms, wait 100 ms, lift, wait 500 ms,
   press (260, 282), drag left 110 dp over 260 ms, wait 100 ms, lift'
make visits remove 30 'quarry.state = failed' 'a long swipe, of which nothing comes' \
  'press (330, 282), drag left 270 dp over 420 ms, wait 80 ms, lift'
make visits note 31 'willow.fraction = 0' 'the note is pulled out and goes back' \
  'press (90, 366), drag right 130 dp over 320 ms, wait 100 ms, lift'
make visits weather 39 'weather = yes' 'the weather comes from above, is sent away to the side, and called back on its way' \
  'wait 100 ms, set weather yes, wait 800 ms, set weather no, wait 120 ms, set weather yes, wait 800 ms'
make triage healthy 32 'card = 1' 'a card dragged far enough to the right' \
  'press (220, 260), wait 60 ms, drag right 150 dp over 380 ms, wait 120 ms, lift'
make triage visits 33 'card = 2' 'two cards flicked to the left, in quick succession' \
  'flick left 90 from (240, 300) at 1100, wait 120 ms, flick left 90 from (240, 300) at 1100'
make triage stays 34 'card = 0' 'a card that is not taken far enough, and goes back' \
  'press (220, 420), wait 60 ms, drag right 80 dp over 320 ms, wait 140 ms, lift'
make yard-plan place 35 'new_x = 140, new_y = -160' 'a new hive is dragged to its place on the grid' \
  'press new-hive, wait 80 ms, move to (206, 436) over 700 ms, wait 140 ms, lift'
make frame closer 36 'zoom = 2.5' 'a double tap zooms to the place that was tapped' 'double tap (240, 260)'
make frame right-angle 37 'turn = 90' 'two fingers turn the frame nearly upright' 'rotate 110 degrees at frame'
make hive-sheet rests 41 'stands = 3, scrolled = 0' 'a sheet is opened, drawn up to half, and flicked up to full' \
  'tap ridge, wait 900 ms, press (180, 566), drag up 190 dp over 420 ms, wait 120 ms, lift, wait 600 ms,
   flick up 120 from (180, 390) at 1000'
make hive-sheet nearly 42 'stands = 1, sheet_open = yes' 'a sheet is nearly closed by a drag, and stays' \
  'tap ridge, wait 900 ms, press (180, 566), drag down 70 dp over 340 ms, wait 160 ms, lift'
make hive-sheet close 43 'stands = 0, sheet_open = no' 'a flick closes the sheet' \
  'tap ridge, wait 900 ms, flick down 80 from (180, 566) at 900'
make hive-sheet list 44 'stands = 2, scrolled = 0' 'the notes scroll when the sheet is full, and bring it down at their start' \
  'set stands 3, wait 700 ms, press (180, 600), drag up 160 dp over 360 ms, wait 150 ms, lift, wait 500 ms,
   press (180, 380), drag down 420 dp over 800 ms, wait 150 ms, lift'
make hive-sheet pages 49 'page = Harvest, content.content = 2, content.height = 148' 'pages are chosen in quick succession: the last one counts' \
  'set stands 2, wait 600 ms, tap (170, 434), wait 60 ms, tap (290, 434), wait 700 ms'
make hive-sheet dialogs 45 'asks = no, sure = no, closed = 1' 'a dialog on a dialog, closed by back one after the other' \
  'set stands 2, wait 600 ms, tap (96, 496), wait 700 ms, tap (112, 412), wait 700 ms, tap (116, 412), wait 500 ms,
   back, wait 400 ms, back'
make hive-sheet quick 46 'drawer_open = no, sheet_open = yes' 'a drawer opened and closed in quick succession, then a sheet' \
  'open drawer, wait 90 ms, close drawer, wait 60 ms, open drawer, wait 40 ms, close drawer, wait 500 ms, open hive,
   wait 60 ms, close hive, wait 50 ms, open hive'
make hive-sheet drawer 47 'drawer_open = no, chosen = 1' 'an edge swipe draws the drawer in; a tap beside it puts it away' \
  'press (6, 400), drag right 190 dp over 360 ms, wait 60 ms, lift, wait 600 ms, tap (132, 98), wait 400 ms, tap (320, 500)'
make hive-sheet toast 48 'toasts.shown = 2, toasts.state = absent' 'a toast that a finger keeps, and another that it swipes away' \
  'set closed 1, wait 1500 ms, press (120, 674), hold 2500 ms, lift, wait 3200 ms, set closed 2, wait 900 ms,
   press (120, 674), drag right 190 dp over 260 ms, lift, wait 600 ms'
make rounds forward 51 'page = Frame, rounds.selected = 2' 'two pages forward, the second before the first has come' \
  'tap (180, 684), wait 80 ms, tap (300, 684), wait 700 ms'
make rounds back 52 'page = Hives, rounds.selected = 0' 'a page drawn back from the edge: given up, and then finished' \
  'set page Ridge, wait 600 ms, press (12, 320), drag right 110 dp over 300 ms, wait 140 ms, lift, wait 600 ms,
   press (12, 320), drag right 250 dp over 420 ms, wait 120 ms, lift, wait 600 ms'
make rounds flick 54 'page = Ridge, rounds.selected = 1' 'a page flicked back to the one it came from' \
  'set page Ridge, wait 500 ms, set page Frame, wait 500 ms, flick right 110 from (8, 340) at 1100'

# The same by bare hands: quicker, steadier, smaller.
hand=bare make inspection bare-drag 61 'frames = 7' 'a bare finger drags the thumb from 4 to 7' \
  'press frames.thumb, wait 60 ms, drag right 84 dp over 240 ms, wait 90 ms, lift'
hand=bare make inspection bare-brood 62 'brood_from = 2, brood_to = 8' 'a bare finger takes the high thumb to 8' \
  'press brood.high, wait 60 ms, drag right 84 dp over 220 ms, wait 90 ms, lift'
hand=bare make photos bare-swipe 63 'photo = 3' 'a bare finger swipes to the next frame' 'flick left 110 from (260, 350) at 1100'
hand=bare make visits bare-open 64 'open = quarry' 'a bare finger swipes two rows' \
  'press (90, 198), drag right 100 dp over 180 ms, wait 80 ms, lift, wait 400 ms,
   press (260, 282), drag left 100 dp over 180 ms, wait 80 ms, lift'
hand=bare make triage bare-healthy 65 'card = 1' 'a bare finger flicks a card to the right' 'flick right 90 from (220, 260) at 1200'
hand=bare make yard-plan bare-place 66 'new_x = 140, new_y = -160' 'a bare finger takes a new hive to its place' \
  'press new-hive, wait 60 ms, move to (206, 436) over 450 ms, wait 120 ms, lift'
hand=bare make frame bare-closer 67 'zoom = 2.5' 'a bare finger taps twice' 'double tap (240, 260)'
hand=bare make hive-sheet bare-rests 68 'stands = 3' 'a bare finger opens the sheet and flicks it up to full' \
  'tap ridge, wait 700 ms, press (180, 566), drag up 190 dp over 300 ms, wait 100 ms, lift, wait 500 ms, flick up 120 from (180, 390) at 1200'

hand=bare make inspection bare-queen 69 'queen_seen = yes' 'a bare finger flicks the switch' 'flick right 60 from queen.thumb at 900'
hand=bare make inspection bare-temper 70 'temper = 4.5' 'a bare finger draws along the temper marks' \
  'press (150, 504), wait 40 ms, drag right 126 dp over 260 ms, lift'
hand=bare make inspection bare-smoker 71 'smoker_lit = yes, saved = 1' 'bare fingers light the smoker, then save' \
  'tap smoker, wait 300 ms, tap save'
hand=bare make photos bare-tab 72 'box = Super' 'a bare finger taps another box' 'tap boxes.1'
hand=bare make photos bare-dot 73 'photo = 5' 'a bare finger taps a dot' 'tap dots.5'
hand=bare make visits bare-note 74 'willow.fraction = 0' 'a bare finger pulls the note out, and it goes back' \
  'press (90, 366), drag right 126 dp over 220 ms, wait 60 ms, lift'
hand=bare make hive-sheet bare-drawer 75 'drawer_open = no, chosen = 1' 'a bare finger draws the drawer in, chooses, and taps beside it' \
  'press (6, 400), drag right 190 dp over 260 ms, lift, wait 500 ms, tap (132, 98), wait 300 ms, tap (320, 500)'

# The same drag as a panel of 57.15 by 114.3 mm would have sent it: 20 units a millimetre, 3.175 a dp.
{
  printf '%s\n' '# made, not recorded' 'N: Heather Ridge smoker shelf panel' 'I: 0018 0b0b 0001 0110' \
    'P: 02 00 00 00 00 00 00 00' 'B: 00 0b 00 00 00 00 00 00 00' 'B: 03 00 00 00 00 00 80 60 02' \
    'A: 2f 0 9 0 0 0' 'A: 35 0 1143 0 0 20' 'A: 36 0 2286 0 0 20' 'A: 39 0 65535 0 0 0'
  awk -F, '/^[0-9]/ {
    us = $1 * 1000; stamp = sprintf("E: %d.%06d ", 1 + us / 1000000, us % 1000000)
    if ($3 == "down") printf "%s0003 0039 %d\n", stamp, 70 + $2
    if ($3 != "up") printf "%s0003 0035 %d\n%s0003 0036 %d\n", stamp, $4 * 3.175 + 0.5, stamp, $5 * 3.175 + 0.5
    if ($3 == "up") printf "%s0003 0039 -1\n", stamp
    printf "%s0000 0000 0000\n", stamp
  }' "$folder/inspection.drag.take.csv"
} >"$folder/inspection.panel.events"
