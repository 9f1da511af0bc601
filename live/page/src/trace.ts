// A take played from its beginning to its end: what was read and where all was, step by step.
import type { Decision, Ubbo } from '../../../npm/src/ubbo';
import type { Take } from './session';

/** How a take came out: readings and places over time, decisions, and what the cells hold at the end. */
export interface Trace {
  ends: number; // µs
  step: number; // µs
  values: Float64Array[]; // one list of readings for each step
  boxes: Float64Array[]; // four numbers for each part, for each step
  decisions: Decision[];
  outcome: string;
}

// A trace has so many steps, fewer while a number is being pulled, but none finer than a quarter of a frame.
const trace_steps = 160;
const pulled_steps = 60;
const finest_step = 1e6 / 240;
const usual_rest = 500_000; // how long things go on after the finger, µs

/** Plays a take on a scene. Nothing when it does not fit. Its steps follow from the take alone, so that two traces of it
 *  can be held against each other. */
export function trace_of(
  ubbo: Ubbo, scene: number, take: Take, which: readonly number[], coarse: boolean,
): Trace | undefined {
  const run = ubbo.begin_take(scene, take.text, take.name);
  if (run === 0) return undefined;
  const last = length_of(take.text);
  const steps = coarse ? pulled_steps : trace_steps;
  const step = Math.max(finest_step, (last + usual_rest) / steps);
  const trace: Trace = { ends: 0, step, values: [], boxes: [], decisions: [], outcome: '' };
  const most = 20 * steps; // of what goes on for long after the finger
  for (let time = 0; trace.values.length < most; time += step) {
    ubbo.play(run, Math.round(time));
    trace.values.push(ubbo.values(run, which).slice());
    trace.boxes.push(ubbo.boxes(run).slice());
    if (time >= last && ubbo.settled(run)) break;
  }
  ubbo.play(run, -1);
  trace.ends = ubbo.ends(run);
  trace.decisions = ubbo.decisions(run);
  trace.outcome = ubbo.cells(run);
  ubbo.free_run(run);
  return trace;
}

const lengths = new Map<string, number>();

/** From a take's first event to its last, µs. */
function length_of(take: string): number {
  let length = lengths.get(take);
  if (length === undefined) {
    const times = [...take.matchAll(/^([\d.]+),/gm)].map((found) => Number(found[1]));
    length = times.length === 0 ? 0 : (times[times.length - 1] - times[0]) * 1000;
    if (lengths.size > 100) lengths.clear();
    lengths.set(take, length);
  }
  return length;
}
