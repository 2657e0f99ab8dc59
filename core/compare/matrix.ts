import { sourceSays } from '../ink/entrySays';
import type { RunInk } from '../ink/fold';
import { sourceKey } from '../ink/sourceKey';
import type { Cell, Measure } from './cells';
import { throughSays } from './compatibility';
import { withoutSequences, type SetupRuns } from './setups';

/** What charged what, in one figure: devices down, sources across. */
export interface FigureMatrix {
  sources: { key: string; name: string; charger: string }[];
  devices: {
    id: string;
    name: string;
    /** By source; `undefined` of one that was not run. */
    cells: (
      { cell: Cell; runs: string[]; /** From 0, the worst of its device, to 1, the best. */ shade: number | undefined } | undefined
    )[];
  }[];
}

const sourceOf = ({ header }: RunInk) => sourceKey(header);

/** Lays a figure out over devices and sources. Each device is ranked and shaded by itself. Sequences fill no cell. */
export function matrixOf(all: readonly SetupRuns[], by: Measure): FigureMatrix {
  const setups = withoutSequences(all);
  const first = setups.flatMap(({ runs }) => runs.slice(0, 1).map(({ run }) => run));
  const kinds = [...new Map(first.map((run) => [sourceOf(run), run.header])).entries()];
  const names = kinds.map(([, header]) => sourceSays(header));
  const sources = kinds.map(([key, header], index) => {
    const name = names[index] ?? '';
    // Of one name: what tells them apart is the port and the cable.
    const through = names.filter((other) => other === name).length > 1 ? throughSays(header) : '';
    return { key, name: through === '' ? name : `${name}, ${through}`, charger: header.charger.id };
  });
  const devices = [...new Map(first.map(({ header: { device } }) => [device.id, device])).values()];
  return {
    sources,
    devices: devices.map(({ id, name }) => {
      const own = setups.filter(({ runs }) => runs[0]?.run.header.device.id === id);
      const cells = by.compare(own);
      const values = cells.flatMap(({ mean }) => (mean && !mean.isLeast ? [mean.value] : []));
      const [low, high] = [Math.min(...values), Math.max(...values)];
      const shadeOf = ({ mean }: Cell) => {
        if (!mean || mean.isLeast) return undefined;
        const share = high > low ? (mean.value - low) / (high - low) : 1;
        return by.better === 'less' && high > low ? 1 - share : share;
      };
      return {
        id,
        name,
        cells: sources.map(({ key }) => {
          const at = own.findIndex(({ runs }) => runs[0] && sourceOf(runs[0].run) === key);
          const cell = cells[at];
          return cell && { cell, runs: own[at]?.runs.map(({ run }) => run.header.id) ?? [], shade: shadeOf(cell) };
        }),
      };
    }),
  };
}
