// What is decided, in English: the one place of these words.
#include "ubbo/landing/landing.hpp"
#include "ubbo/parts/button.hpp"
#include "ubbo/parts/card_deck.hpp"
#include "ubbo/parts/carousel.hpp"
#include "ubbo/parts/entering_part.hpp"
#include "ubbo/parts/outside.hpp"
#include "ubbo/parts/page_dots.hpp"
#include "ubbo/parts/page_host.hpp"
#include "ubbo/parts/part.hpp"
#include "ubbo/parts/press.hpp"
#include "ubbo/parts/progress_bar.hpp"
#include "ubbo/parts/rail.hpp"
#include "ubbo/parts/range_slider.hpp"
#include "ubbo/parts/rating.hpp"
#include "ubbo/parts/swap.hpp"
#include "ubbo/parts/swipe_row.hpp"
#include "ubbo/parts/switch.hpp"
#include "ubbo/parts/tabs.hpp"
#include "ubbo/parts/toast_tray.hpp"
#include "ubbo/parts/zoom_plane.hpp"
#include "ubbo/stage/routing.hpp"
#include "ubbo/stage/stage.hpp"
#include "ubbo/touch/contacts.hpp"
#include "ubbo/touch/drag.hpp"
#include "ubbo/touch/gestures.hpp"
#include "ubbo/words/catalogue.hpp"

namespace ubbo::words {

namespace {

namespace a = answers;
namespace q = questions;

struct QuestionWords {
  const Question& question;
  const char* words;
};

struct AnswerWords {
  // Words that name a fact which the answer is not given with do not compile.
  consteval AnswerWords(const Answer& said, const char* few_words, const char* words, const char* for_picture)
      : answer(said), in_short(few_words), sentence(words), caption(for_picture) {
    detail::need_facts(sentence, said.facts);
    detail::need_facts(caption, said.facts);
  }
  const Answer& answer;
  const char* in_short;
  const char* sentence;
  const char* caption;
};

constexpr QuestionWords question_words[] = {
    {q::sound, "is the sample sound?"},
    {q::drag, "is it a drag?"},
    {q::tap, "is it a tap?"},
    {q::again, "does it belong to the tap before?"},
    {q::tap_reported, "when is the tap reported?"},
    {q::hold, "is it a long press?"},
    {q::flick, "is it a flick?"},
    {q::axis, "which axis does it keep to?"},
    {q::edge, "is it an edge swipe?"},
    {q::pair, "what do two contacts do?"},
    {q::pair_end, "how far did two contacts go?"},
    {q::landing, "where does it come to rest?"},
    {q::card, "is the card thrown?"},
    {q::way_out, "is it closed?"},
    {q::page, "which page does it show?"},
    {q::key, "what does the key do?"},
    {q::asked_to, "what does the call do?"},
    {q::press, "does the press count?"},
    {q::fill, "is it filled as far as it goes?"},
    {q::speed, "was it moving when it lifted?"},
    {q::rest, "is it at rest?"},
    {q::cancelled, "what becomes of a cancelled contact?"},
    {q::write, "what does a write by the app do?"},
    {q::bound, "what becomes of it at its bound?"},
    {q::caught, "what becomes of it when it is touched on its way?"},
    {q::thumb, "which thumb is meant?"},
    {q::rate, "which mark is meant?"},
    {q::swap, "what does it show?"},
    {q::swipe, "what does the swipe do?"},
    {q::swipe_action, "is an action pressed?"},
    {q::toggle, "is it switched over?"},
    {q::choose, "which one is selected?"},
    {q::toast, "what becomes of the toast?"},
    {q::state, "does it open or close?"},
    {q::plane, "where does it come to rest?"},
    {q::owner, "which part is pressed?"},
    {q::contest, "which part gets the drag?"},
    {q::hand_over, "which part goes on with the drag?"},
    {q::back, "who answers back?"},
    {q::layout, "does the layout come to rest?"},
    {q::endless, "do the callbacks come to an end?"},
    {q::clock, "do the clocks agree?"},
    {q::asked, "when does what the app asks count?"},
    {q::idle, "does it use its time?"},
    {q::hover, "what is the pointer over?"},
    {q::wheel, "what does the wheel turn?"},
    {q::wheel_end, "is the wheel at rest?"},
};

constexpr AnswerWords answer_words[] = {

    {a::not_down, "no, the contact is not down",
     "a sample of contact {contact} was dropped: the contact is not down", "bad sample"},
    {a::already_down, "no, the contact is down already",
     "a second down of contact {contact} was dropped: it is down already", "bad sample"},
    {a::time_went_back, "no, the time went back",
     "a sample of contact {contact} was bad: at {time} it lies before the one it follows", "bad sample"},
    {a::not_finite, "no, not a usable number",
     "a sample of contact {contact} was bad: its place or time is no usable number", "bad sample"},
    {a::too_many_contacts, "no, too many contacts", "contact {contact} was dropped: {open} are down already",
     "bad sample"},
    {a::far_ahead, "no, far ahead of everything else",
     "a sample of contact {contact} was bad: more than {ahead} ahead of everything else", "bad sample"},
    {a::drags, "yes",
     "a drag began {after} after the finger went down: it moved {travel}, {travel.margin} over the threshold "
     "of {travel.limit}",
     "drag: over {travel.limit}"},
    {a::drag_too_short, "no, too short", "no drag: the finger moved {travel}, and {travel.limit} are needed",
     "no drag: {travel} of {travel.limit}"},
    {a::drag_across, "no, across the axis",
     "no drag: the finger moved {across} across the axis and only {travel} along it, and {travel.limit} "
     "along it are needed",
     "no drag: across the axis"},
    {a::drag_off_handle, "no, not from the handle",
     "no drag: the finger moved {travel}, but began {from handle} from the handle, and up to {from "
     "handle.limit} are allowed",
     "no drag: beside the handle"},
    {a::drag_unwanted, "no, such drags are not followed here",
     "no tap any more: the finger moved {travel}, over the threshold of {travel.limit}, and drags along this "
     "axis are not followed here",
     "no tap: it moved"},
    {a::tap, "yes",
     "a tap: the finger moved {strayed} of the {strayed.limit} allowed, and lifted after {held} of the "
     "{held.limit} allowed",
     "tap"},
    {a::tap_strayed, "no, it moved",
     "no tap: the finger moved {strayed}, {strayed.margin} over the limit of {strayed.limit}",
     "no tap: moved {strayed}"},
    {a::tap_too_long, "no, it was held too long",
     "no tap: the finger was down for {held}, {held.margin} over the limit of {held.limit}",
     "no tap: held {held}"},
    {a::again, "yes",
     "it is the next tap of a row: {gap} after the lift before, of {gap.limit} allowed, and {apart} away "
     "from it, of {apart.limit} allowed",
     "next tap in the row"},
    {a::again_too_late, "no, too late",
     "a new tap, not the next of a row: {gap} after the lift before, {gap.margin} over the limit of "
     "{gap.limit}",
     "new tap: {gap} later"},
    {a::again_too_far, "no, too far",
     "a new tap, not the next of a row: {apart} away from the one before, {apart.margin} over the limit of "
     "{apart.limit}",
     "new tap: {apart} away"},
    {a::tap_at_once, "at once", "the tap was reported at once", ""},
    {a::row_at_once, "a row, at once", "{taps} taps in a row were reported at once",
     "{taps|tap|taps} in a row"},
    {a::tap_after_wait, "after a further tap was ruled out",
     "the tap was reported after a further tap was ruled out: the wait cost {waited}",
     "reported, {waited} late"},
    {a::row_after_wait, "a row, after a further tap was ruled out",
     "{taps} taps in a row were reported after a further tap was ruled out: the wait cost {waited}",
     "{taps|tap|taps} in a row, {waited} late"},
    {a::held, "yes",
     "a long press: the finger was down for {held} and moved {strayed} of the {strayed.limit} allowed",
     "long press"},
    {a::flick, "yes",
     "a flick: lifted at {speed.size}, {speed.margin} over the threshold of {speed.limit}, {way} from where "
     "the "
     "drag began",
     "flick: {speed.size}"},
    {a::flick_too_slow, "no, too slow",
     "no flick: lifted at {speed.size}, and {speed.limit} are needed; the drag ended {way} from where it "
     "began",
     "no flick: {speed.size}"},
    {a::flick_rested, "no, it rested",
     "no flick: the finger was still for {rested} before the lift, and {rested.limit} are allowed; the drag "
     "ended {way} from where it began",
     "no flick: it was still"},
    {a::axis_horizontal, "horizontal",
     "it keeps to the horizontal axis: it began {off axis} off it, and up to {off axis.limit} are held",
     "axis: horizontal"},
    {a::axis_vertical, "vertical",
     "it keeps to the vertical axis: it began {off axis} off it, and up to {off axis.limit} are held",
     "axis: vertical"},
    {a::axis_free, "none",
     "it keeps to no axis: it began {off axis} off the nearer one, {off axis.margin} more than the {off "
     "axis.limit} that are held",
     "axis: none"},
    {a::axis_unlocked, "none, the lock is off", "it keeps to no axis: the axis lock is off", ""},
    {a::edge_swipe, "yes",
     "it is an edge swipe: it began {from the edge} from the edge, of {from the edge.limit} allowed",
     "edge swipe"},
    {a::pair_pans, "pan",
     "two contacts began to pan: their distance changed by {pinch} of {pinch.limit}, they went {turn} "
     "of {turn.limit} around their middle, and their middle moved {pan} of {pan.limit}",
     "pan"},
    {a::pair_pinches, "pinch",
     "two contacts began to pinch: their distance changed by {pinch} of {pinch.limit}, they went {turn} "
     "of {turn.limit} around their middle, and their middle moved {pan} of {pan.limit}",
     "pinch"},
    {a::pair_rotates, "rotate",
     "two contacts began to rotate: their distance changed by {pinch} of {pinch.limit}, they went "
     "{turn} of {turn.limit} around their middle, and their middle moved {pan} of {pan.limit}",
     "rotate"},
    {a::pair_ended, "ended",
     "two contacts ended: their distance is {scale} times what it was when they began, they turned by "
     "{turn} and moved {moved}",
     "scale {scale}, {turn}"},
    {a::pair_withdrawn, "withdrawn", "two contacts came to nothing: one was taken away", "pair withdrawn"},
    {a::pair_too_little, "nowhere",
     "two contacts did nothing: their distance changed by {pinch} of {pinch.limit}, they went {turn} of "
     "{turn.limit} around their middle, and their middle moved {pan} of {pan.limit}",
     "two contacts: too little"},
    {a::land_nearest, "on the nearest snap point",
     "snaps to {place}: let go at {from}, which is {distance} from {place} and {distance.limit} from {other}",
     "snaps to {place}"},
    {a::land_nearest_aimed, "on the snap point nearest to where it is aimed",
     "snaps to {place}: let go at {from} with {speed.size}, aimed at {aimed}, which is {distance} from "
     "{place} and {distance.limit} from {other}",
     "snaps to {place}"},
    {a::land_tie, "on the later of two as near",
     "snaps to {place}: {aimed} lies half-way between {place} and {other}, {distance} from each, and the "
     "later one wins a tie",
     "snaps to {place}"},
    {a::land_flicked, "on the next snap point, since it was flicked",
     "flicked on to {place}: let go at {from} with {speed.size}, which is a flick and takes it to the next "
     "snap point; without it {other} is the nearest",
     "flicked to {place}"},
    {a::land_committed, "on the next snap point, far enough towards it",
     "goes on to {place}: let go at {from}, aimed {moved} from where it came from, {moved.margin} over the "
     "{moved.limit} that are needed",
     "goes on to {place}"},
    {a::land_returns, "where it came from, not far enough away",
     "goes back to {place}: let go at {from}, aimed only {moved} from there, and {moved.limit} are needed to "
     "go on",
     "back to {place}"},
    {a::land_limited, "as many snap points on as it may at a time",
     "goes to {place}, no further in one flick than {most|snap point|snap points}: let go at {from} with "
     "{speed.size}, which would have taken it to {other}",
     "goes to {place}, no further"},
    {a::land_only, "on the only snap point", "goes to {place}, the only snap point: let go at {from}",
     "goes to {place}"},
    {a::land_free, "where it was let go", "stays at {from}, where it was let go: there are no snap points",
     "stays at {place}"},
    {a::land_thrown, "where its speed carries it",
     "goes to {place}: let go at {from} with {speed.size}, and there are no snap points", "goes to {place}"},
    {a::land_bound, "at its bound",
     "goes to its bound at {place}: let go at {from}, and there are no snap points", "goes to {place}"},
    {a::land_coasts, "where friction lets it come",
     "coasts to {place}, as far as friction lets it: let go at {from} with {speed.size}",
     "coasts to {place}"},
    {a::land_coasts_past, "past its bound",
     "coasts to its bound at {place}, which it reaches {after} later: let go at {from} with {speed.size}, "
     "and friction would have let it go on to {aimed}",
     "coasts to its bound"},
    {a::land_tapped, "on the snap point nearest to the tap",
     "goes to {place}, the snap point nearest to the tap: the tap is at {from}, {distance} away",
     "goes to {place}"},
    {a::land_tapped_free, "where the tap was", "goes to {place}, where the tap is: there are no snap points",
     "goes to {place}"},
    {a::button_pressed, "yes", "{part} was pressed", "pressed"},
    {a::button_stays_down, "yes, it stays down", "{part} was pressed, and stays down", "stays down"},
    {a::button_comes_up, "yes, it comes up", "{part} was pressed, and comes up again", "comes up"},
    {a::card_far, "yes, far enough",
     "the card is thrown: it was let go {far} away, and from {far.limit} on it goes", "thrown"},
    {a::card_fast, "yes, fast enough",
     "the card is thrown: it was let go at {speed.size}, and from {speed.limit} on it goes", "flicked away"},
    {a::card_stays, "no", "the card goes back: it was let go {far} away, of {far.limit}, at {speed.size}",
     "goes back"},
    {a::card_flicked_back, "no, it was flicked back",
     "the card goes back: it was {far} away, past {far.limit}, and was flicked back at {speed.size}",
     "flicked back"},
    {a::card_asked, "yes, it was asked for", "the card is thrown, as it was asked for", "thrown"},
    {a::card_undone, "it is taken back", "card {card} is taken back", "taken back"},
    {a::item_tapped, "on the item that was tapped",
     "item {item} was tapped, {away|item|items} away: it goes there", "to item {item}"},
    {a::item_asked, "on the item that was asked for", "item {item} was asked for: it goes there",
     "to item {item}"},
    {a::closed_by_backdrop, "by its backdrop", "{part} is closed by a tap on its backdrop",
     "closed by its backdrop"},
    {a::closed_by_button, "by its button", "{part} is closed by its button", "closed by its button"},
    {a::closed_by_back, "by back", "{part} is closed by back", ""},
    {a::backdrop_stays, "no, its backdrop does not close it",
     "a tap on the backdrop of {part} does nothing: backdrop_closes is off", "backdrop does nothing"},
    {a::back_stays, "no, back does not close it",
     "back does nothing: {part} has to be dealt with first, and its back_closes is off", "back does nothing"},
    {a::dot_pressed, "yes, a page is meant", "the press at {x} means page {page} of {count}", "page {page}"},
    {a::dot_by_key, "a key means a page", "a key means page {page} of {count}", "page {page}"},
    {a::dot_by_wheel, "the wheel means a page", "the wheel means page {page} of {count}", "page {page}"},
    {a::dot_by_call, "a call means a page", "it was asked to go to page {page} of {count}", "page {page}"},
    {a::page_forward, "a later one", "{part} goes forward from page {from} to {to}", "forward to page {to}"},
    {a::page_back, "an earlier one", "{part} goes back from page {from} to {to}", "back to page {to}"},
    {a::page_here, "the one that was asked for", "{part} shows page {to}, and no other any more", ""},
    {a::key_moves, "moves it", "a key moves it from {from} to {to}", "key: to {to}"},
    {a::key_at_end, "nothing, it is there", "a key does nothing: it is at {from} already, as far as it goes",
     "key: at its end"},
    {a::key_held, "nothing, a finger has it", "a key does nothing: a finger has it", "key: held"},
    {a::key_activates, "activates it", "a key activates it", "key: activated"},
    {a::wheel_moves, "moves it", "the wheel moves it from {from} to {to}", "wheel: to {to}"},
    {a::wheel_at_end, "nothing, it is there",
     "the wheel does nothing: it is at {from} already, as far as it goes", "wheel: at its end"},
    {a::call_moves, "moves it", "it was asked to go from {from} to {to}", "asked: to {to}"},
    {a::call_at_end, "nothing, it is there",
     "it was asked to go on, and is at {from} already, as far as it goes", "asked: at its end"},
    {a::call_activates, "activates it", "it was activated by a call", "activated"},
    {a::press_left, "no, it was lifted elsewhere",
     "the press does not count: it was lifted {away} beside {part}, and up to {away.limit} are allowed",
     "lifted beside it"},
    {a::press_cancelled, "no, it was cancelled", "the press does not count: it was cancelled", "cancelled"},
    {a::filled_to, "yes", "it is filled to {fraction}", "at {fraction}"},
    {a::lifted_moving, "yes",
     "lifted while moving at {velocity.size}: the finger had last moved {rested} before, and from "
     "{rested.limit} on it counts as still",
     "lifts at {velocity.size}"},
    {a::lifted_resting, "no, it rested",
     "lifted at rest: the finger was still for {rested}, and from {rested.limit} on that counts as rest",
     "lifts at rest"},
    {a::lifted_still, "no, not along its axis", "lifted without speed along the axis", "lifts without speed"},
    {a::at_rest, "yes", "at rest at {value}", "at rest at {value}"},
    {a::goes_back, "back to where it was going",
     "the contact was cancelled: it goes back from {from} to {to}", "cancelled, back to {to}"},
    {a::stays_cancelled, "nothing, it had not moved", "the contact was cancelled: it had not moved",
     "cancelled"},
    {a::write_moves, "moves it", "the app wrote {written}, and it goes there", "written: {written}"},
    {a::write_limited, "moves it, as far as it may",
     "the app wrote {written}: it goes to {to}, the nearest place it may be", "written: {written}"},
    {a::write_is_there, "nothing, it is there",
     "the app wrote {written}: it stands at or goes to {to} already, the nearest place it may be", ""},
    {a::write_waits, "nothing yet, a finger has it",
     "the app wrote {written} while a finger has it: that waits for the lift", "written: {written}"},
    {a::write_unusable, "nothing, it is not a finite number",
     "the app wrote what is no finite number: it stays where it is", "written: no number"},
    {a::bound_passes_on, "its flick goes on elsewhere",
     "reached its bound at {place} with {speed.size} left, and another part goes on with that",
     "flick passed on"},
    {a::bound_yields, "it yields",
     "reached its bound at {place} with {speed.size} left: the bound yields, and it comes back",
     "bound yields"},
    {a::bound_stops, "it stops",
     "reached its bound at {place} with {speed.size} left, and stops: the bound does not yield, and no other "
     "part goes on",
     "stops at its bound"},
    {a::caught_stays, "it stays there", "touched while it moved, at {place}, it stays there",
     "caught at {place}"},
    {a::caught_goes_on, "it goes on",
     "touched while it moved, at {place}; nothing came of the press, so it goes on to {to}",
     "goes on to {to}"},
    {a::thumb_low, "the low one", "the low thumb is meant: it is {low} away, the high one {high}",
     "low thumb"},
    {a::thumb_high, "the high one", "the high thumb is meant: it is {high} away, the low one {low}",
     "high thumb"},
    {a::low_by_way, "the low one, by the finger's way",
     "both thumbs lie under the finger, which moved {way.size} towards the low end: the low one is meant",
     "low thumb"},
    {a::high_by_way, "the high one, by the finger's way",
     "both thumbs lie under the finger, which moved {way.size} towards the high end: the high one is meant",
     "high thumb"},
    {a::rated, "the one under the finger", "the finger at {x} means {meant}, of {marks} marks",
     "rated {meant}"},
    {a::rated_none, "none, it is off the low end",
     "the finger at {x} is off the low end: no mark, of {marks}", "cleared"},
    {a::rating_goes_back, "none, the touch was cancelled", "the touch was cancelled: it goes back to {meant}",
     "cancelled"},
    {a::swap_forward, "a later content", "{part} goes forward from {from} to {to}", "forward to {to}"},
    {a::swap_back, "an earlier content", "{part} goes back from {from} to {to}", "back to {to}"},
    {a::swap_done, "the one that was asked for", "{part} shows {to}, and nothing else any more",
     "shows {to}"},
    {a::swipe_opens, "it opens", "{part} starts to open, by {place}", "opens"},
    {a::swipe_commits, "it commits",
     "let go at {from}: from {from.limit} on it is a long swipe, which commits", "commits"},
    {a::swipe_closes, "it closes", "{part} starts to close", "{part} closes"},
    {a::swipe_returns, "it goes back by itself", "it was open for {waited}, and goes back by itself",
     "goes back by itself"},
    {a::swipe_timed_out, "it has failed", "nothing came of the swipe within {waited}: it has failed",
     "failed"},
    {a::swipe_failed, "it has failed", "the app says that it failed", "failed"},
    {a::swipe_action_pressed, "yes", "an action of {part} is pressed", "action pressed"},
    {a::swipe_removed, "its place closes", "the app takes {part} away: its place closes", "removed"},
    {a::toggled_on, "on", "{part} is switched on", "on"},
    {a::toggled_off, "off", "{part} is switched off", "off"},
    {a::tab_chosen, "the one that was pressed", "tab {index} of {count} was pressed, and is selected",
     "tab {index}"},
    {a::tab_is_chosen, "the same as before", "tab {index} of {count} was pressed, and is selected already",
     ""},
    {a::tab_by_key, "the next by a key", "a key selects tab {index} of {count}", "tab {index}"},
    {a::tab_by_wheel, "the next by the wheel", "the wheel selects tab {index} of {count}", "tab {index}"},
    {a::tab_by_call, "the next by a call", "it was asked to select tab {index} of {count}", "tab {index}"},
    {a::underline_rests, "the underline is there", "the underline is under tab {index}", ""},
    {a::toast_waits, "it waits its turn", "a toast is shown already: this one waits, with {before} before it",
     "waits"},
    {a::toast_replaces, "it replaces another", "the toast that was shown makes way for it",
     "replaces another"},
    {a::toast_restarts, "it takes another's place",
     "the toast that is shown says it instead, and its time begins again", "time begins again"},
    {a::toast_shown, "it is shown", "a toast is shown", "shown"},
    {a::toast_time_over, "its time is over", "its {time} are over, and it goes", "time over"},
    {a::toast_swiped, "it is swiped away", "it was swiped away", "swiped away"},
    {a::toast_button, "its button closes it", "its button was tapped", "button"},
    {a::toast_closed, "it is closed by a call", "the app closes it", "closed"},
    {a::toast_pauses, "its time pauses", "a finger is on it: its time pauses, with {left} left",
     "time pauses"},
    {a::toast_goes_on, "its time goes on", "the finger has gone: its time goes on, with {left} left",
     "time goes on"},
    {a::toast_has_gone, "nothing, it has gone",
     "a toast was to be closed that has gone already: nothing is closed", ""},
    {a::state_entering, "it opens", "{part} starts to open", "{part} opens"},
    {a::state_present, "it is open", "{part} is open", "{part} open"},
    {a::state_leaving, "it closes", "{part} starts to close", "{part} closes"},
    {a::state_absent, "it is closed", "{part} is closed", "{part} closed"},
    {a::state_open_already, "nothing, it is open",
     "{part} was asked to open, and is open or on its way already", ""},
    {a::state_closed_already, "nothing, it is closed",
     "{part} was asked to close, and is closed or on its way already", ""},
    {a::plane_lands, "within its limits",
     "let go at a zoom of {zoom}, turned by {turn}: it comes to rest at {to zoom} and {to turn}",
     "to zoom {to zoom}"},
    {a::plane_zooms, "at the zoom of a double tap",
     "a double tap at ({x.number}, {y.number}) zooms from {zoom} to {to zoom}", "zooms to {to zoom}"},
    {a::plane_rests, "it is at rest", "it is at rest at a zoom of {zoom}", "at rest, zoom {zoom}"},
    {a::owns, "this part",
     "a finger went down at ({x.number}, {y.number}), {inside by} inside {part}, and presses it: no other "
     "part there wants it",
     "{part} is pressed"},
    {a::owns_first, "this part first",
     "a finger went down at ({x.number}, {y.number}), {inside by} inside {part}, and presses it; "
     "{rivals|part|parts} around it may take over once the finger drags",
     "{part} is pressed"},
    {a::owner_beside, "this part, beside which it is",
     "a finger went down at ({x.number}, {y.number}), {outside by} beside {part}: while {part} is open, "
     "everything beside it is its backdrop",
     "on the backdrop of {part}"},
    {a::owner_pulled, "this part, which is closed",
     "a finger went down at ({x.number}, {y.number}), at the edge of the screen that {part} is drawn in from",
     "at the edge of {part}"},
    {a::owner_catches, "this part, which it stops",
     "a finger went down at ({x.number}, {y.number}), {inside by} inside {part}, which was moving and stops "
     "under it",
     "{part} is caught"},
    {a::owner_held, "not this part, another finger holds it",
     "a finger went down at ({x.number}, {y.number}), {inside by} inside {part}, which another finger holds "
     "already",
     "{part} is held already"},
    {a::owner_disabled, "nobody, it is disabled",
     "a finger went down at ({x.number}, {y.number}), {inside by} inside {part}, which is disabled: nothing "
     "happens",
     "{part} is disabled"},
    {a::owner_nobody, "nobody",
     "a finger went down at ({x.number}, {y.number}), where no part is to be pressed", "nothing there"},
    {a::owner_palm, "nobody, it is a palm",
     "a contact went down at ({x.number}, {y.number}), {size} wide: from {size.limit} on it is a palm, "
     "and nobody gets it",
     "a palm"},
    {a::owner_bezel, "nobody, it began on the bezel",
     "a contact went down at ({x.number}, {y.number}), {from the edge} from the edge: up to {from the "
     "edge.limit} is the bezel, and nobody gets it",
     "on the bezel"},
    {a::contest_won, "this part",
     "{part} gets the drag: the finger moved {along} along its axis, {along.margin} over the threshold of "
     "{along.limit}, and {across} across; {rivals|other part|other parts} could have had it",
     "{part} drags"},
    {a::contest_nobody, "nobody, no part follows this axis",
     "no part drags: the finger passed the threshold of {along.limit} along an axis that no part there "
     "follows",
     "nobody drags"},
    {a::contest_observes, "no, it only observes", "{part} does not get the drag: it only observes", ""},
    {a::contest_axis, "no, it does not follow this axis",
     "{part} does not get the drag: it follows no drag along this axis from there", ""},
    {a::contest_inside, "no, a part inside it has it",
     "{part} does not get the drag: a part inside it has it", ""},
    {a::contest_handle, "no, a handle has it",
     "{part} does not get the drag: the handle of another part is under the finger", ""},
    {a::contest_end, "no, it is at its end",
     "{part} does not get the drag: it is at its end in this direction", ""},
    {a::contest_yields, "no, it yields",
     "{part} does not get the drag: in this direction it yields to another part that can move", ""},
    {a::contest_held, "nobody, another finger holds it",
     "{part} would get the drag, but another finger holds it: no part drags", "{part} is held already"},
    {a::goes_on, "this part",
     "{part} goes on with the drag: the part before it reached its end, and {distance} of the way "
     "were left",
     "{part} goes on"},
    {a::comes_first, "this part, which comes first that way",
     "{part} goes on with the drag: it comes first in that direction", "{part} goes on"},
    {a::goes_on_with_flick, "this part, with the flick",
     "{part} goes on with the flick: the part before it reached its end with {speed.size} left",
     "{part} goes on"},
    {a::hover_enters, "this part",
     "the pointer at ({x.number}, {y.number}) is over {part}, which would take a press there",
     "pointer over {part}"},
    {a::hover_leaves, "no longer this part", "the pointer at ({x.number}, {y.number}) is over {part} no more",
     "pointer off {part}"},
    {a::wheel_scrolls, "this part", "the wheel at ({x.number}, {y.number}) scrolls {part}",
     "wheel scrolls {part}"},
    {a::wheel_zooms, "this part", "the wheel at ({x.number}, {y.number}) zooms {part}", "wheel zooms {part}"},
    {a::wheel_steps, "this part, by steps",
     "the wheel has turned {turned|step|steps}: {part} goes on by each whole one", "wheel steps {part}"},
    {a::wheel_too_little, "nothing yet",
     "the wheel has turned {turned.number} of a step: {part} stays until it is a whole one",
     "wheel: no whole step yet"},
    {a::wheel_scrolls_around, "what lies around this part",
     "the wheel scrolls what lies around {part}, which would step by it only with the focus",
     "wheel scrolls past {part}"},
    {a::wheel_nobody, "nothing", "nothing at ({x.number}, {y.number}) follows the wheel that way",
     "wheel: nothing follows"},
    {a::wheel_contact_down, "nothing", "the wheel does nothing while a finger, pen or mouse button is down",
     "wheel waits for the lift"},
    {a::wheel_momentum, "nothing",
     "the platform lets the wheel run on; what it scrolled goes on by its own speed already",
     "platform's momentum passed over"},
    {a::wheel_unusable, "nothing", "a turn of the wheel was dropped: its numbers cannot be used",
     "bad turn dropped"},
    {a::wheel_stops, "not further",
     "{part} is at its end: {left.size} of the wheel's turn are left, and nothing around takes them",
     "{part} at its end"},
    {a::wheel_rests, "yes", "the wheel has rested for {rested}: what it scrolled lands", "wheel rests"},
    {a::wheel_lifted, "yes, it was lifted", "the fingers were lifted from the trackpad", "trackpad lifted"},
    {a::back_taken, "this part", "back was pressed: {part} answers it", "back pressed"},
    {a::back_begins, "this part, as far as the gesture has come", "a back gesture begins: {part} follows it",
     "back begins"},
    {a::back_given_up, "nobody, it was given up",
     "the back gesture was given up: {part} goes back to where it was", "back given up"},
    {a::back_blocked, "nobody, it is blocked",
     "back was pressed: {part} keeps it from what lies below, and does not answer it itself",
     "back is blocked"},
    {a::back_nobody, "nobody", "back was pressed, and no part answers it", "back: nobody"},
    {a::layout_restless, "no",
     "a size that was measured after the layout changed it {rounds|time|times}, and would again: it was "
     "left as it is",
     "layout does not settle"},
    {a::callbacks_endless, "no",
     "callbacks led to {events} further events within one call: what is left waits for the next",
     "callbacks without end"},
    {a::clock_went_back, "no",
     "a frame came {back} before what had happened: some sample's clock was wrong, and time goes on "
     "from here",
     "clock went back"},
    {a::asked_waits, "after the lift",
     "the app asks {part} to move while a finger holds it: it waits for the lift", "waits for the lift"},
    {a::due_again, "no",
     "{part} was due {times|time|times} at the same moment and did nothing about it: it gets no more "
     "time until something happens to it",
     "due again and again"},
};

}  // namespace

const Catalogue& Catalogue::english() {
  static const Catalogue made = [] {
    Catalogue c;
    for (const QuestionWords& one : question_words) c.asked_.emplace(one.question.name, one.words);
    for (const AnswerWords& one : answer_words) {
      c.answers_.push_back(&one.answer);
      c.said_.emplace(one.answer.name, Wording{one.in_short, one.sentence, one.caption});
    }
    return c;
  }();
  return made;
}

}  // namespace ubbo::words
