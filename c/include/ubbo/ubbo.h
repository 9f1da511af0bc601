#ifndef UBBO_UBBO_H
#define UBBO_UBBO_H

/* Ubbo for C, and for all languages that call C: scenes, runs of them, takes, pictures.
 *
 * Scenes and runs are numbers; 0 is none. A number that is none, or no longer one, does nothing and answers 0.
 * Times are microseconds since the run began; lengths are dp.
 * Texts are UTF-8. A text that is handed in ends with 0. One that comes back is written to `into`, as far as
 * there is `room`, without a 0 at its end; what returns is how many bytes it has, so that a call with more room
 * gets all of it. Nothing throws. All of this belongs to one thread. */

#include <stddef.h>
#include <stdint.h>

#if defined(__cplusplus)
extern "C" {
#endif

/* A scene: what a scene file says. It never changes. */
typedef uint32_t ubbo_scene;
/* A scene at work. */
typedef uint32_t ubbo_run;

/* What was wrong when a call last failed, as a JSON list of {file, line, column, found, takes, nearest}; "[]":
 * nothing. Lines and columns count from 1; 0: the file as a whole. */
size_t ubbo_fault(char *into, size_t room);

/* Reads a scene file. `name` stands for it in faults. `changes` are lines `PART.SETTING=VALUE`,
 * `feel.SETTING=VALUE`, `screen.SETTING=VALUE` or `cells.NAME=VALUE` that count before what the file says; ""
 * or null: none. Returns 0 when it cannot be read; `ubbo_fault` says why. */
ubbo_scene ubbo_scene_read(const char *text, const char *name, const char *changes);
/* Runs of it go on. */
void ubbo_scene_free(ubbo_scene scene);
/* What a scene is, as JSON: `title`, `screen`, `cells`, `parts`, the `kinds` of these with their readings and
 * actions, and the names of `images` and `keys`. */
size_t ubbo_scene_told(ubbo_scene scene, char *into, size_t room);
/* Its settings, as JSON: of `kinds` and of `groups` such as "feel" with unit, range, default and meaning; what
 * those of each of its `parts` are, and in which line of the file they are said. */
size_t ubbo_scene_settings(ubbo_scene scene, char *into, size_t room);
/* What `ubbo check` finds in it, as JSON. */
size_t ubbo_scene_findings(ubbo_scene scene, char *into, size_t room);
/* The text of a scene file with `changes` written into it: only the characters of those values differ, or a
 * line is added. 0 when that cannot be done; `ubbo_fault` says why. */
size_t ubbo_scene_write(const char *text, const char *name, const char *changes, char *into, size_t room);

/* Begins a run of a scene. Returns 0 when a part refuses its settings; `ubbo_fault` says why. */
ubbo_run ubbo_run_begin(ubbo_scene scene);
/* Begins a run of a scene where another run rests: what is set, open, chosen and focused, and where lists
 * stand. Returns 0 when the other one is not at rest. With `exactly` also where what it shows could not be
 * brought about in the new one (such as a toast under way); then nothing is wrong, and the other goes on. */
ubbo_run ubbo_run_resume(ubbo_scene scene, ubbo_run from, int exactly);
/* Begins a run in which a take (as text) is played by `ubbo_play`. 0 when the take does not read, or does not
 * fit the scene; `ubbo_fault` says why. */
ubbo_run ubbo_run_take(ubbo_scene scene, const char *take, const char *name);
void ubbo_run_free(ubbo_run run);

/* One sample of a contact. Phases: 0 down, 1 move, 2 up, 3 cancel, 4 hover, 5 leave. Tools: 0 finger, 1 stylus,
 * 2 mouse. Pressure 0 to 1; size in dp, 0: unknown. Returns 1 when a part has the contact. */
int ubbo_touch(ubbo_run run, double time, int contact, int phase, double x, double y, int tool, double pressure,
               double size);
/* What the app or the phone does, as takes say it: kind "set", "put", "key", "back", "turn", "focus", "show",
 * "hide", "enable", "disable", "remove", "call" or "wheel", then what it is about, and a value. Returns 1 when
 * it was done; 0 with a fault when it does not read. */
int ubbo_act(ubbo_run run, double time, const char *kind, const char *target, const char *value);
/* Lets time pass to `time`; call it once a frame. */
void ubbo_advance(ubbo_run run, double time);
/* Of a run that plays a take: plays it up to `time` since the take began; below 0: to its end, and until all is
 * at rest. After that it may be touched on, as any run. */
void ubbo_play(ubbo_run run, double time);
/* When it ends, once it has been played to its end. */
double ubbo_ends(ubbo_run run);
/* When something next happens by itself; below 0: nothing does before the next event. */
double ubbo_due(ubbo_run run);
/* 1 when nothing moves and no contact is down: frames may stop until something is due. */
int ubbo_settled(ubbo_run run);
/* The size of its screen now, which may have been turned. */
double ubbo_width(ubbo_run run);
double ubbo_height(ubbo_run run);
/* What a mouse's pointer is to look like, by CSS's names; "": as always. */
size_t ubbo_cursor(ubbo_run run, char *into, size_t room);

/* The picture of the stage, as numbers, and as texts that they point into. Each step is a number for what it is,
 * and then:
 *   0 path     fill, stroke, width, dash, closed, points, and x, y of each
 *   1 disc     fill, stroke, width, dash, x, y, radius
 *   2 text     colour, x, y, size, align (0 left, 1 centre, 2 right), bold, turn, begin, length
 *   3 image    x, y, w, h, turn, begin, length (its name)
 *   4 begin    opacity, clipped; where that is 1, x and y of four corners
 *   5 end      of the last begin
 * Colours are 0xRRGGBBAA, below 0 none; turns are radians, clockwise; begin and length are bytes of the texts.
 * `dark`: 1 for the dark look. `text_scale`: 1 to 3. Returns how many numbers there are; `texts_size` is how
 * many bytes. */
size_t ubbo_picture(ubbo_run run, int dark, double text_scale, double *into, size_t room, char *texts,
                    size_t texts_room, size_t *texts_size);

/* The readings of a run, as a JSON list of {name, what, unit, part, usual, snap_points, thresholds}: the last are {value,
 * way}, at which it is decided what becomes of a drag when it is let go; `way` is 1 where that counts as the value
 * grows, -1 as it shrinks, 0 either way. */
size_t ubbo_readings(ubbo_run run, char *into, size_t room);
/* What those of them read now whose places in that list are in `which`; null: all. A flag is 0 or 1, a text 0.
 * Returns how many there are. */
size_t ubbo_values(ubbo_run run, const uint32_t *which, size_t count, double *into, size_t room);
/* What one of them reads, for people. */
size_t ubbo_value_text(ubbo_run run, size_t reading, char *into, size_t room);

/* What the cells hold, as a JSON object of their names. */
size_t ubbo_cells(ubbo_run run, char *into, size_t room);

/* How many decisions have been made. */
size_t ubbo_decisions_count(ubbo_run run);
/* Those from `first` on, counted from 0, as a JSON list of {time, part, name, question, yes, sentence, caption}; of a
 * run that plays a take, time counts from where the take begins. */
size_t ubbo_decisions(ubbo_run run, size_t first, char *into, size_t room);
/* The parts in sight from the lowest to the topmost, as a JSON list: id, kind, box, what it lies in, how it
 * presents itself to assistive technology, what it can be asked to do, its pieces, and the places where it
 * stands and may rest. */
size_t ubbo_parts(ubbo_run run, char *into, size_t room);
/* For points `step` dp apart, row by row from the top left corner of the screen, the first half a step from either edge:
 * which part a contact that goes down there would be offered to first, by its place among the parts of the
 * scene counted from 1; 0: none. Returns how many points there are; 0 where `step` is not from 0.5 to 1000. */
size_t ubbo_hit_areas(ubbo_run run, double step, unsigned short *into, size_t room);
/* Where the parts of the scene are now, in its order: x, y, w, h of the handle, of a part that has one, or of the
 * whole part; w is below 0 where it is not in sight. Returns how many numbers there are. */
size_t ubbo_boxes(ubbo_run run, double *into, size_t room);
/* All that was touched and done in a run, as a take. */
size_t ubbo_take(ubbo_run run, char *into, size_t room);
/* What a run has come to, as JSON: as `cells`, `parts` and `decisions` of `ubbo replay --json`. */
size_t ubbo_outcome(ubbo_run run, char *into, size_t room);

/* A transition as scenes write it, followed from 0 to 1 at `count` even steps: its values are written to
 * `into`. Returns how long it takes, microseconds; below 0 when it does not read, and `ubbo_fault` says why. */
double ubbo_transition(const char *text, double *into, size_t count);

#if defined(__cplusplus)
}
#endif
#endif
