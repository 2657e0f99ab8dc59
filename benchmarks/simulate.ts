import { type Charger, type Device } from '../core/bench';
import { negotiate } from '../core/power';
import { parametersOf, simulate, vary, type ChargeParameters } from '../core/simulate';
import { atMost, median, type Figure } from './harness';

const CHARGES = 200;
const SECONDS = 2 * 3600;
const ROUNDS = 7;

const DEVICE: Device = { id: 'd', name: 'phone', kind: 'phone', wattHours: 17, inputLimit: 25, connectors: ['USB-C'], deliveryVolts: 9 };
const CHARGER: Charger = { id: 'c', name: 'adapter', kind: 'adapter', watts: 20 };

function timed(work: () => number): { milliseconds: number; result: number } {
  const start = performance.now();
  const result = work();
  return { milliseconds: performance.now() - start, result };
}

/** 200 charges of two hours at steps of a second, beside as many steps of a loop with one `Math.exp`. */
export function simulateFigure(): Promise<Figure[]> {
  const parameters = parametersOf(negotiate({ device: DEVICE, charger: CHARGER }));
  if (!parameters) throw new Error('Nothing flows in the benchmark.');
  const specimens: ChargeParameters[] = Array.from({ length: CHARGES }, (_, seed) => vary(parameters, seed));
  const charges = () => specimens.reduce((steps, specimen) => steps + simulate(specimen, 0.02, SECONDS, 1, SECONDS).rows, 0);
  const steps = charges();
  const loop = () => {
    let sum = 0;
    for (let step = 0; step < steps; step += 1) sum += Math.exp(-(step % 100) / 50 + sum * 1e-12);
    return sum;
  };
  loop();
  const [mine, bare]: number[][] = [[], []];
  for (let round = 0; round < ROUNDS; round += 1) {
    mine?.push(timed(charges).milliseconds);
    bare?.push(timed(loop).milliseconds);
  }
  const [own, least] = [median(mine ?? []), median(bare ?? [])];
  const worst = `${CHARGES} charges of 2 h ${own.toFixed(0)} ms (slowest ${Math.max(...(mine ?? [])).toFixed(0)}) beside ${least.toFixed(0)} ms for ${steps} steps, medians of ${ROUNDS}`;
  return Promise.resolve([atMost(10, { name: 'simulate', value: own / least, unit: 'ratio', worst })]);
}
