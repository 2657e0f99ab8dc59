import { nanoid } from 'nanoid';
import { SCHEMA, sourceSays, type Header } from '@core/ink';
import { useLanes } from './lanes';
import { penFor } from './penFor';
import { useLogbook } from './runs';

/** What a person gives for a run before it begins; the rest of its header is filled in here. */
type NewRun = Omit<Header, 'schema' | 'id' | 'pen' | 'group'>;

/**
 * The headers of runs that begin: each with its id and with the pen that its setup has, or the lowest that none has yet. Runs that begin
 * together are one group, and their ids follow their order, for lanes of one instant go by their ids.
 *
 * @param isTogether whether several begin at one instant: not where they are copied from paper
 */
export function newHeaders(runs: readonly NewRun[], isTogether = true): Header[] {
  const penned = [
    ...useLanes().records.map(({ header }) => ({ device: header.device.name, charger: sourceSays(header), pen: header.pen })),
    ...useLogbook().summaries,
  ];
  const group = isTogether && runs.length > 1 ? { group: nanoid(12) } : {};
  const ids = runs.map(() => nanoid(12)).sort();
  return runs.map((run, index) => {
    const setup = { device: run.device.name, charger: sourceSays(run) };
    const pen = penFor(setup, penned);
    penned.push({ ...setup, pen });
    return { schema: SCHEMA, id: ids[index] ?? nanoid(12), ...run, ...group, pen };
  });
}

/** The header of one run that begins. */
export function newHeader(run: NewRun): Header {
  const [header] = newHeaders([run]);
  if (!header) throw new Error('One run has one header.');
  return header;
}
