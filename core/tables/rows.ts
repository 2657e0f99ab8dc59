import { headlineOf } from '../advise/headline';
import { judge } from '../advise/judge';
import { questionOf, type Judged } from '../advise/question';
import { factsOf } from '../bench/facts';
import { factValue } from '../bench/factValue';
import { SHELVES, type Gear, type Shelf } from '../bench/shelf';
import { AS_KEPT, numbersOf } from '../compare/figureTable';
import { columnsOf, GAIN_UNITS } from '../compare/measures';
import { setupKey, setupsOf, workOn } from '../compare/setups';
import type { Comparison } from '../compare/comparison';
import { readRun, type ReadRun } from '../curve/figures';
import { workloads } from '../curve/workloads';
import { foldStored, streamedOf, type Rest, type StoredRun } from '../exchange/logbook';
import { chargedBy } from '../ink/sequence';
import { eventInWords } from '../ink/entrySays';
import { endingSays, endingWord } from '../ink/endings';
import type { Source, Strike } from '../ink/entry';
import type { RunRecord } from '../ink/fold';
import { cadenceInWords } from '../method/cadence';
import { SCHOOLS, type School } from '../method/schools';
import { hashId } from '../quantity/hashId';
import { QUANTITIES, quantityOf } from '../quantity/quantity';
import type { Samples } from '../samples/column';
import type { AnyRow, RowOf, Value } from './table';
import { columnName, TABLES, type TableName } from './tables';

type Tables = typeof TABLES;
/** Takes the rows of all tables but samples, which come as columns. */
export type Emit = <Name extends TableName>(table: Name, row: RowOf<Tables[Name]>) => void;

/** The key of a piece of gear in tables: ids are told apart by their shelf alone. */
const gearKey = (shelf: Shelf, id: string | undefined): string | undefined => (id === undefined ? undefined : `${shelf}/${id}`);

const namesAndValues = (all: readonly { name: string; value: string }[] = []): string =>
  all.map(({ name, value }) => `${name}: ${value}`).join('; ');

function gearRow(shelf: Shelf, gear: Gear): AnyRow {
  const facts = factsOf(shelf).map((fact): [string, Value] => {
    const value = factValue(gear, fact);
    if (fact.of && typeof value === 'string') return [columnName(fact.key), gearKey(fact.of, value)];
    // A choice may be of numbers: its column is of texts.
    return [columnName(fact.key), fact.type === 'figure' || typeof value === 'boolean' || value === undefined ? value : String(value)];
  });
  return { ...Object.fromEntries(facts), id: gearKey(shelf, gear.id), shelf, name: gear.name, retired: gear.retired ?? false };
}

const portFrom1 = (port: number | undefined) => (port ?? 0) + 1;
const sourceColumns = ({ charger, port, cable, feed }: Pick<Source, 'charger' | 'port' | 'cable' | 'feed'>) => ({
  charger: gearKey('charger', charger.id),
  port: portFrom1(port),
  cable: gearKey('cable', cable?.id),
  fed_by: gearKey('charger', feed?.charger.id),
});

/**
 * Makes the rows of all tables: run by run, and then those of what else there is. What several runs share (gear, setups) and what refers to what comes
 * last (runs) is told at the end.
 *
 * @param compared ids of the runs that comparisons are of: they are kept at hand, for their verdicts
 */
export class RowMaker {
  private readonly gear = new Map<string, AnyRow>();
  private readonly setups = new Map<string, RowOf<Tables['setups']>>();
  private readonly runs: RowOf<Tables['runs']>[] = [];
  private readonly judged = new Map<string, Judged>();

  constructor(
    private readonly emit: Emit,
    private readonly compared: ReadonlySet<string> = new Set(),
  ) {}

  /** Emits what is of one run alone. @returns what its meters streamed, where it lies in it */
  run(stored: StoredRun): Samples {
    const record = foldStored(stored);
    const one = readRun(record);
    const samples = streamedOf(stored);
    const { header } = record;
    this.addGear('device', header.device);
    if (header.meter) this.addGear('meter', header.meter);
    for (const source of [header, ...record.sources, ...record.trials.map((each) => each.source)]) this.addSource(source);
    this.addRun(one, this.addSetup(one), record, samples);
    (header.conditions ?? []).forEach(({ name, value }, index) => {
      this.emit('conditions', { run: header.id, place: index + 1, name, value });
    });
    this.readings(record);
    this.events(record);
    this.trials(record);
    this.figures(one);
    if (this.compared.has(header.id)) this.judged.set(header.id, { ...one, workloads: workloads(record), percent: record.tracks.percent });
    return samples;
  }

  /** Emits what else there is, and what was kept until now. */
  end(rest: Rest): void {
    for (const shelf of SHELVES) for (const gear of rest[`${shelf}s`]) this.gear.set(`${shelf}/${gear.id}`, gearRow(shelf, gear));
    for (const row of this.gear.values()) this.emit('gear', row);
    for (const row of this.setups.values()) this.emit('setups', row);
    this.addMethods(rest);
    for (const { id, name, question, method, cadence, startLevel, repeats, conditions } of rest.studies) {
      this.emit('studies', {
        ...{ id, name, question, method, repeats, start_level: startLevel },
        cadence: cadenceInWords(cadence),
        conditions: namesAndValues(conditions),
      });
    }
    const studies = new Set(rest.studies.map(({ id }) => id));
    for (const row of this.runs) this.emit('runs', studies.has(String(row.study)) ? row : { ...row, study: undefined });
    const runs = new Set(this.runs.map(({ id }) => id));
    for (const each of rest.comparisons) this.comparison(each, rest, runs);
  }

  private addGear(shelf: Shelf, gear: Gear): void {
    const key = `${shelf}/${gear.id}`;
    if (!this.gear.has(key)) this.gear.set(key, gearRow(shelf, gear));
  }

  private addSource({ charger, cable, feed }: Pick<Source, 'charger' | 'cable' | 'feed'>): void {
    this.addGear('charger', charger);
    if (cable) this.addGear('cable', cable);
    if (!feed) return;
    this.addGear('charger', feed.charger);
    if (feed.cable) this.addGear('cable', feed.cable);
  }

  /** Those of one's own, and of the trade's those that something is taken by. A method that is gone has its id alone. */
  private addMethods({ methods, studies }: Rest): void {
    const used = new Set([...studies, ...this.runs].flatMap(({ method }) => method ?? []));
    for (const { id } of methods) used.delete(id);
    const known: School[] = [...methods, ...SCHOOLS.filter(({ id }) => used.has(id))];
    for (const { id, name, start, startLevel, cadence, records, stops, conditions } of known) {
      this.emit('methods', {
        ...{ id, name, start, records, stops, start_level: startLevel },
        cadence: cadenceInWords(cadence),
        conditions: namesAndValues(conditions),
      });
      used.delete(id);
    }
    for (const id of used) this.emit('methods', { id, name: id });
  }

  private addSetup({ run }: ReadRun): string {
    const id = hashId(setupKey(run));
    const { header } = run;
    if (!this.setups.has(id))
      this.setups.set(id, {
        id,
        name: chargedBy(run),
        device: gearKey('device', header.device.id),
        ...sourceColumns(header),
        cell: header.study?.cell,
        settings: namesAndValues(header.conditions),
        work: workOn(run).join('; '),
      });
    return id;
  }

  private addRun({ run, figures }: ReadRun, setup: string, record: RunRecord, samples: Samples): void {
    const { header, stop, label } = run;
    this.runs.push({
      ...{ id: header.id, setup, device: gearKey('device', header.device.id), unit: header.unit, method: header.method },
      charger: gearKey('charger', header.charger.id),
      meter: gearKey('meter', header.meter?.id),
      study: header.study?.id,
      plugged_in: header.plugInAt,
      length: run.end,
      ended: stop && endingWord(stop),
      ended_remark: stop?.remark,
      start_level: figures.startLevel,
      top_level: figures.topLevel,
      cadence: header.cadence && cadenceInWords(header.cadence),
      readings: record.readings.length,
      samples: Object.values(samples).reduce((sum, { values }) => sum + values.length, 0),
      tags: label?.tags.join(', '),
      note: label?.text,
      owner: header.owner,
      source: header.source,
      discarded: run.discardedAt,
    });
  }

  private readings({ header, readings, struck }: RunRecord): void {
    const all = [...readings.map((each) => ({ ...each, strike: undefined })), ...struck].sort(
      (one, other) => one.reading.seq - other.reading.seq,
    );
    for (const { reading, seconds, strike } of all)
      for (const quantity of QUANTITIES) {
        const value = reading[quantity];
        if (value === undefined) continue;
        this.emit('readings', {
          ...{ run: header.id, entry: reading.seq, quantity, value, unit: quantityOf(quantity).unit, seconds, clock_time: reading.at },
          turning: quantity === 'percent' ? reading.turning : undefined,
          direction: reading.direction,
          note: reading.note,
          struck: strike !== undefined,
          reason: strike?.reason,
        });
      }
  }

  private events({ header, events, notes, stop, crossed }: RunRecord): void {
    const gone = crossed.map(({ entry, seconds, strike }) => ({ ...entry, seconds, strike }));
    for (const each of [...events, ...notes, ...(stop ? [stop] : []), ...gone].sort((one, other) => one.seq - other.seq)) {
      if (each.kind !== 'event' && each.kind !== 'note' && each.kind !== 'stop') continue;
      const strike = 'strike' in each ? (each.strike as Strike) : undefined;
      const about = { run: header.id, entry: each.seq, kind: each.kind, seconds: each.seconds, clock_time: each.at };
      const mark = { struck: strike !== undefined, reason: strike?.reason };
      if (each.kind === 'note') this.emit('events', { ...about, says: each.text, ...mark });
      else if (each.kind === 'stop')
        this.emit('events', {
          ...about,
          event: each.because,
          says: endingSays(each),
          ...mark,
        });
      else
        this.emit('events', {
          ...about,
          event: each.event,
          says: eventInWords(each),
          until: 'until' in each ? each.until : undefined,
          shift: 'shift' in each && each.shift !== undefined ? each.shift / 1000 : undefined,
          ...mark,
        });
    }
  }

  private trials({ header, trials }: RunRecord): void {
    const seqOf = new Map(trials.map(({ id, seq }) => [id, seq]));
    for (const trial of trials)
      this.emit('trials', {
        ...Object.fromEntries(QUANTITIES.map((quantity) => [columnName(quantity), trial[quantity]])),
        ...{ run: header.id, entry: trial.seq, seconds: trial.seconds, state: trial.state, status: trial.status },
        ...sourceColumns(trial.source),
        held: trial.source.held,
        volts_before: trial.voltsBefore,
        watts_out: trial.wattsOut,
        watts_out_assumed: trial.wattsOutAssumed,
        ...{ chime: trial.chime, chimes: trial.chimes, icon: trial.icon, meter: trial.meter, remark: trial.remark },
        confirms: trial.confirms === undefined ? undefined : seqOf.get(trial.confirms),
      });
  }

  private figures(one: ReadRun): void {
    const setups = setupsOf([one]);
    for (const { measure, cells } of columnsOf(setups, '%')) {
      // Of a run that several sources fed, the figures of the whole of it: it comes last.
      const cell = cells.at(-1);
      const numbers = numbersOf(cell, measure.unit, AS_KEPT);
      const said = cell?.each.at(-1);
      if (!numbers && cell?.value === undefined) continue;
      this.emit('figures', {
        run: one.run.header.id,
        figure: measure.id,
        name: measure.title,
        ...(numbers && { value: numbers.value, lower: numbers.low, upper: numbers.high, unit: AS_KEPT.unit(measure.unit) }),
        told: [cell?.value, cell?.range].filter(Boolean).join(', '),
        how: said?.working?.formula,
      });
    }
  }

  private comparison({ id, name, at, runs, base, level, unit, edits = [] }: Comparison, rest: Rest, known: ReadonlySet<Value>): void {
    this.emit('comparisons', { id, name, saved: at, baseline: known.has(base) ? base : undefined, set_against: level });
    for (const run of new Set(runs)) if (known.has(run)) this.emit('compared', { comparison: id, run });
    const all = runs.flatMap((run) => this.judged.get(run) ?? []);
    const question = questionOf(all, rest, { baseline: base, unit: GAIN_UNITS.find((each) => each === unit) });
    const headline = all.length > 0 ? headlineOf(question, level === undefined ? undefined : { yardstick: level }) : undefined;
    if (headline) this.emit('sentences', { comparison: id, need: 'headline', text: [...headline.says, headline.sure].join(' ') });
    const findings = all.length > 0 ? judge(question) : [];
    for (const { need, says } of findings) {
      const own = edits.find((edit) => edit.need === need)?.text;
      this.emit('sentences', { comparison: id, need, text: own ?? says, worked: own === undefined ? undefined : says });
    }
    // What was written of a need that nothing is worked out for any more is not lost.
    for (const { need, text } of edits)
      if (!findings.some((each) => each.need === need)) this.emit('sentences', { comparison: id, need, text });
  }
}
