import 'vuetify/styles/core';
import '../../../app/frame/paper.css';
import { createPinia } from 'pinia';
import { createApp, h, nextTick } from 'vue';
import { foldRun } from '@core/ink';
import { exampleHeader } from '../../../core/ink/example';
import { createTheme } from '../../../app/kit/theme';
import StripSheet from '../../../app/strip/StripSheet.vue';
import { traceOf, type Trace } from '../../../app/strip/trace';

/** Milliseconds of script for each frame: of the strip, and of a bare canvas that strokes as many points; and the gaps between frames. */
export interface DrawTimes {
  mine: number[];
  bare: number[];
  gaps: number[];
  points: number;
}

/** @param setups runs of one setup share its name and its pen; @param max rows that are drawn of one run */
function traces(runs: number, samples: number, setups: number, max: number | undefined): Trace[] {
  return Array.from({ length: runs }, (_, run) => {
    const seconds = Float64Array.from({ length: samples }, (__, row) => row);
    const values = seconds.map((each) => 30 * Math.exp(-each / 40_000) + Math.sin(each / (50 + run)) + ((each * 7919) % 13) / 13);
    const header = exampleHeader({ id: `run-${run}`, cadence: undefined });
    const setup = run % setups;
    return { ...traceOf(foldRun(header, [], { watts: { seconds, values } }), `run ${setup}`, setup, { max }), unseen: [] };
  });
}

const frame = () => new Promise<number>((resolve) => requestAnimationFrame(resolve));

/** Strokes every point on a bare canvas. @returns milliseconds */
function stroked(context: CanvasRenderingContext2D | null, all: readonly Trace[], samples: number): number {
  const began = performance.now();
  context?.clearRect(0, 0, 1200, 700);
  for (const { dots } of all) {
    context?.beginPath();
    for (const [x, y = 0] of dots.watts ?? []) context?.lineTo((x * 1200) / samples, 700 - y * 20);
    context?.stroke();
  }
  return performance.now() - began;
}

/** Looks closer and along again and again, a step a frame, as a wheel does. */
async function measure(runs: number, samples: number, frames: number, setups = runs, max?: number): Promise<DrawTimes> {
  const all = traces(runs, samples, setups, max);
  const app = createApp({
    render: () => h('div', { style: 'width:1200px;height:700px' }, h(StripSheet, { traces: all, penned: setups < runs, caption: 'runs' })),
  });
  app.use(createPinia()).use(createTheme(''));
  app.mount('#app');
  await document.fonts.ready;
  await frame();
  const paper = document.querySelector<HTMLElement>('[role=slider]');
  if (!paper) throw new Error('There is no paper.');
  paper.focus();
  const times: DrawTimes = { mine: [], bare: [], gaps: [], points: all.reduce((sum, { dots }) => sum + (dots.watts?.length ?? 0), 0) };
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [1200, 700];
  document.body.append(canvas);
  const context = canvas.getContext('2d');
  let last = await frame();
  // One after the other, frame by frame: the machine is as quick for both.
  for (let each = 0; each < frames; each += 1) {
    const isZoom = each % 20 < 10;
    // Not quite as far out as in: the whole of it would have nowhere to go along.
    const turn = each % 40 < 20 ? -120 : 110;
    const began = performance.now();
    paper.dispatchEvent(
      new WheelEvent('wheel', { bubbles: true, cancelable: true, clientX: 600, ...(isZoom ? { deltaY: turn } : { deltaX: turn }) }),
    );
    await nextTick();
    times.mine.push(performance.now() - began);
    const now = await frame();
    times.gaps.push(now - last);
    times.bare.push(stroked(context, all, samples));
    last = await frame();
  }
  return times;
}

Object.assign(window, { measure });
