import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import Ajv from 'ajv-draft-04';
import { DuckDBConnection } from '@duckdb/node-api';
import { unzipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readRun } from '../curve';
import { foldStored, streamedOf, NOTHING_ELSE, type Rest } from '../exchange';
import { QUANTITIES } from '../quantity';
import { finishedRuns, STUDIES } from '../../demo/finished';
import { CABLES, CHARGERS, DEVICES, METERS } from '../../demo/saltmarsh';
import profile from './fixtures/data-package-profile.json';
import { packageSink } from './dataPackage';
import { parquetSink } from './parquet';
import { TABLES } from './tables';
import { writeTables } from './write';

const runs = finishedRuns();
const rest: Rest = {
  ...NOTHING_ELSE,
  devices: DEVICES,
  chargers: CHARGERS,
  cables: CABLES,
  meters: METERS,
  studies: STUDIES,
  comparisons: [
    {
      schema: 3,
      id: 'pair',
      name: '=Which for the van?',
      at: Date.UTC(2026, 10, 30, 9),
      runs: runs.slice(0, 3).map(({ header }) => header.id),
      base: runs[0]?.header.id,
      edits: [{ need: 'to-80', text: '=1+1', made: 'x\ny' }],
    },
  ],
};
const folder = mkdtempSync(join(tmpdir(), 'inkpath-tables-'));
let duck: DuckDBConnection;

/** What a query gives, as rows of plain values. */
async function ask(sql: string): Promise<Record<string, unknown>[]> {
  const found = await duck.runAndReadAll(sql.replaceAll('{', `'${folder}/`).replaceAll('}', `'`));
  return found.getRowObjectsJS();
}

function save(path: string, bytes: Uint8Array): void {
  mkdirSync(dirname(join(folder, path)), { recursive: true });
  writeFileSync(join(folder, path), bytes);
}

const together = (parts: readonly Uint8Array[]) => Buffer.concat(parts);

let files: Record<string, Uint8Array> = {};

beforeAll(async () => {
  duck = await DuckDBConnection.create();
  const parts: Uint8Array[] = [];
  const compared = new Set(rest.comparisons.flatMap((each) => each.runs));
  await writeTables(
    runs,
    () => rest,
    packageSink((bytes) => parts.push(bytes), 'Demo', Date.UTC(2026, 10, 30)),
    compared,
  );
  files = unzipSync(together(parts));
  for (const [path, bytes] of Object.entries(files)) save(join('package', path), bytes);
  const begin = (path: string) => {
    const own: Uint8Array[] = [];
    return {
      bytes: (bytes: Uint8Array) => own.push(bytes),
      end: () => {
        save(join('parquet', path), together(own));
      },
    };
  };
  await writeTables(
    runs,
    () => rest,
    parquetSink(begin, () => undefined),
    compared,
  );
});
afterAll(() => {
  duck.closeSync();
  rmSync(folder, { recursive: true });
});

describe('the data package', () => {
  it('is described as the specification’s own schema wants it (Frictionless Data Package 1, JSON Schema draft 4)', () => {
    const isValid = new Ajv({ strict: false, allErrors: true, validateFormats: false }).compile(profile);
    const descriptor = JSON.parse(Buffer.from(files['datapackage.json'] ?? []).toString()) as { resources: { path: string }[] };
    expect([isValid(descriptor), isValid.errors]).toEqual([true, null]);
    expect(descriptor.resources.map(({ path }) => path).sort()).toEqual(
      Object.keys(files)
        .filter((path) => path !== 'datapackage.json')
        .sort(),
    );
  });

  it('holds in every table what its description says: columns, types, keys once, and references that lead somewhere', async () => {
    for (const { name, fields, key, ...table } of Object.values(TABLES)) {
      if (name === 'samples') continue;
      const from = `read_csv({package/${name}.csv}, all_varchar = true, header = true, nullstr = '')`;
      const [head = ''] = Buffer.from(files[`${name}.csv`] ?? [])
        .toString()
        .split('\r\n');
      expect([name, head]).toEqual([name, Object.keys(fields).join(',')]);
      const count = (where: string) => ask(`select count(*)::int as found from ${from} where ${where}`).then(([row]) => row?.found);
      for (const [column, { type, isNeeded }] of Object.entries(fields)) {
        const to = { string: 'varchar', integer: 'int', number: 'double', boolean: 'boolean', datetime: 'timestamptz' }[type];
        expect([name, column, await count(`${column} is not null and try_cast(${column} as ${to}) is null`)]).toEqual([name, column, 0]);
        if (isNeeded) expect([name, column, await count(`${column} is null`)]).toEqual([name, column, 0]);
      }
      const [keys] = await ask(`select count(*)::int as rows, count(distinct (${key.join(', ')}))::int as distinct_keys from ${from}`);
      expect([name, keys?.distinct_keys]).toEqual([name, keys?.rows]);
      for (const { columns, to } of 'refers' in table ? table.refers : []) {
        const other = `select ${TABLES[to as keyof typeof TABLES].key.join(', ')} from read_csv({package/${to}.csv}, all_varchar = true, header = true)`;
        const lost = await count(`${columns.join(' is not null and ')} is not null and (${columns.join(', ')}) not in (${other})`);
        expect([name, columns, lost]).toEqual([name, columns, 0]);
      }
    }
  });

  it('makes no formula of a name or a sentence', async () => {
    expect(await ask(`select name from read_csv({package/comparisons.csv}, all_varchar = true, header = true)`)).toEqual([
      { name: "'=Which for the van?" },
    ]);
    const said = await ask(
      `select text, worked from read_csv({package/sentences.csv}, all_varchar = true, header = true) where need = 'to-80'`,
    );
    expect(said[0]?.text).toBe("'=1+1");
  });
});

describe('an outside reader (DuckDB)', () => {
  it('works out the time to full of every run of the demo to the minute, from readings and samples alone', async () => {
    const found = await ask(`
      with levels as (
        select run, seconds, value from read_parquet({parquet/readings/*/*.parquet}, hive_partitioning = true) where quantity = 'percent' and not struck
        union all
        select run, seconds, value from read_parquet({parquet/samples/*/*.parquet}, hive_partitioning = true) where quantity = 'percent'),
      full_at as (select run, min(seconds) as latest from levels where value >= 100 group by run)
      select f.run, f.lower, f.upper, latest / 60 as latest,
        (select max(seconds) / 60 from levels l where l.run = f.run and l.value < 100 and l.seconds < full_at.latest) as earliest
      from read_parquet({parquet/figures/part-0.parquet}) f join full_at using (run)
      join read_parquet({parquet/runs/part-0.parquet}) r on r.id = f.run
      where f.figure = 'level-100'`);
    expect(found.length).toBeGreaterThan(7);
    for (const { run, lower, upper, latest, earliest } of found) {
      expect([run, Math.abs(Number(latest) - Number(upper)) < 1], `${Number(latest)} ${Number(upper)}`).toEqual([run, true]);
      expect([run, Math.abs(Number(earliest) - Number(lower)) < 1], `${Number(earliest)} ${Number(lower)}`).toEqual([run, true]);
    }
  });

  it('reads every value of every run with its type: numbers, moments, yes and no, nothing', async () => {
    const [types] = await ask(`select typeof(plugged_in) as moment, typeof(length) as number, typeof(readings) as whole, typeof(id) as text
      from read_parquet({parquet/runs/part-0.parquet}) limit 1`);
    expect(types).toEqual({ moment: 'TIMESTAMP', number: 'DOUBLE', whole: 'INTEGER', text: 'VARCHAR' });
    for (const stored of runs) {
      const record = foldStored(stored);
      const { id } = record.header;
      const [row] = await ask(
        `select plugged_in, length, tags, discarded, samples from read_parquet({parquet/runs/part-0.parquet}) where id = '${id}'`,
      );
      expect(row).toMatchObject({ length: record.end, discarded: null });
      expect((row?.plugged_in as Date).getTime()).toBe(record.header.plugInAt);
      const streamed = streamedOf(stored);
      for (const quantity of QUANTITIES) {
        const column = streamed[quantity];
        if (!column) continue;
        const rows = await ask(
          `select seconds, value from read_parquet({parquet/samples/run=${id}/part-0.parquet}) where quantity = '${quantity}'`,
        );
        expect(rows.map(({ seconds }) => seconds)).toEqual(Array.from(column.seconds));
        expect(rows.map(({ value }) => value)).toEqual(Array.from(column.values));
      }
      const readings = stored.entries.filter(({ kind }) => kind === 'reading').length;
      const [counted] = await ask(
        readings === 0
          ? 'select 0 as found'
          : `select count(distinct entry)::int as found from read_parquet({parquet/readings/run=${id}/part-0.parquet})`,
      );
      expect(counted?.found).toBe(readings);
    }
  });

  it('finds unit and meaning of each column in the file', async () => {
    const said = await ask(`select decode(key) as key, decode(value) as value from parquet_kv_metadata({parquet/runs/part-0.parquet})`);
    const by = new Map(said.map(({ key, value }) => [String(key), String(value)]));
    expect(by.get('unit:length')).toBe('s');
    expect(by.get('column:start_level')).toBe('The level at plug-in, if it was seen. In %.');
  });
});

it('a figure of the tables is the one of the run', async () => {
  for (const stored of runs.slice(0, 12)) {
    const { run, figures } = readRun(foldStored(stored));
    const [row] = await ask(
      `select value, unit from read_parquet({parquet/figures/part-0.parquet}) where run = '${run.header.id}' and figure = 'peak'`,
    );
    if (figures.peak) expect(row?.unit).toBe('W');
    if (figures.peak) expect(Math.abs(Number(row?.value) - figures.peak.watts)).toBeLessThan(0.06);
  }
});
