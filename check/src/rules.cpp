#include "rules.hpp"

#include <array>

namespace ubbo::check {

namespace {

constexpr std::array rules{
    Rule{"unreadable", "the file is no TOML here: what follows may not be read at all"},
    Rule{"unknown-key", "nothing reads a key of this name: what it was meant to do does not happen"},
    Rule{"former-key", "a key has another name now: under its former name it is not read"},
    Rule{"wrong-value", "a value is of the wrong type, out of range, or names something that is not there"},
    Rule{"refused", "a part refuses its settings or its place, such as a dialog without a way out"},
    Rule{"off-screen",
         "a part leaves the screen, or what it lies in: part of it can neither be seen nor touched"},
    Rule{"under-cutout", "a part lies under the notch or a system bar, where touches and content are lost"},
    Rule{"covered", "a part covers another's middle: what is meant for the lower one goes to the upper"},
    Rule{"small-target", "a target is under 44 dp: fingers miss it, gloved ones more often"},
    Rule{"close-targets", "small targets lie closer than 8 dp: fingers hit the wrong one"},
    Rule{"no-name", "a part has no label: screen readers have nothing to say"},
    Rule{"unheard",
         "a part that holds a value is linked to no cell: it looks right, and the app never hears of it"},
    Rule{"never-shown", "a layer that no cell, edge or take opens: it is made and never seen"},
    Rule{"one-way",
         "a layer comes by a motion and goes without one, or the other way about: it looks broken"},
    Rule{"cut-exit", "what lies in a layer takes longer to go than the layer: its exit is cut"},
    Rule{"back-ignored",
         "a layer keeps all below it from touches and is not closed by back: people feel locked in"},
    Rule{"short-message", "a message is gone before it can be read"},
    Rule{"doubled-snap-point", "two snap points lie on each other: one of them is never meant"},
    Rule{"lost-content",
         "a choice has more or fewer names than there are contents: one of them shows nothing"},
    Rule{"step-over-range", "a step is larger than the range: only the ends can be reached"},
    Rule{"commit-out-of-reach", "a swipe commits where a finger hardly comes, or before it has opened"},
    Rule{"out-of-range", "a cell begins where its part cannot be: the part shows something else"},
    Rule{"idle-cell", "no part reads or writes a cell"},
    Rule{"drag-above-tap", "the drag threshold is above the tap reach: between the two a touch is neither"},
    Rule{"hold-below-tap", "the hold delay is below the tap time: a slow tap is a long press as well"},
    Rule{"gap-above-hold", "the multi-tap gap is above the hold delay: a hold could still be a second tap"},
    Rule{"too-quick", "a motion takes less than an eighth of a second: it is not seen as a motion"},
    Rule{"too-slow", "a motion takes more than 0.8 s: people wait for it"},
    Rule{"seconds-for-ms", "a time in ms is so small that seconds were meant"},
    Rule{"share-for-dp", "a length in dp is so small that a share was meant"},
    Rule{"no-way-back",
         "a destructive action without a question before it or an undo after it: one slip, and it is gone"},
    Rule{"text-cut", "a text is wider than its box: the end of it is not read"},
    Rule{"alike-actions",
         "two actions of a row differ by colour alone: who does not see it takes the wrong one"},
    Rule{"low-contrast", "a text is so faint that its contrast is below 4.5 to 1 (WCAG AA)"},
    Rule{"hover-only",
         "a caption that only a mouse or pen brings up tells what stands nowhere else: fingers never see it"},
    Rule{"no-way-out", "a layer is open from the beginning, and nothing on the screen can close it"},
    Rule{"idle-silence", "a silence that silences nothing"},
};

}  // namespace

std::span<const Rule> check_rules() { return rules; }

}  // namespace ubbo::check
