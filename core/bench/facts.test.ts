import { describe, expect, it } from 'vitest';
import { FACTS, factsOf, factsSay } from './facts';
import { readPort, writePort } from './portText';
import { SCHEMAS } from './schemas';
import { SHELVES } from './shelf';

describe.each(SHELVES)('the facts asked of a %s', (shelf) => {
  it('are the fields of its schema, all of them and each once', () => {
    // How a device was fitted to its runs is worked out, and not asked.
    const fields = Object.keys(SCHEMAS[shelf].fields).filter((field) => !['id', 'name', 'retired', 'fitted'].includes(field));
    expect(factsOf(shelf).map(({ key }) => key)).toHaveLength(fields.length);
    expect(new Set(factsOf(shelf).map(({ key }) => key))).toEqual(new Set(fields));
  });

  it('have names that a table can be headed with', () => {
    const headings = factsOf(shelf).map(({ name, unit }) => `${name} ${unit ?? ''}`);
    expect(new Set(headings).size).toBe(headings.length);
    for (const heading of headings) expect(heading).not.toMatch(/[,;|"]/);
  });
});

it('writes a port in a line and reads it back', () => {
  for (const port of [
    { name: 'C1', connector: 'USB-C', label: '5V⎓3A 9V⎓3A', probed: '5V⎓3A' },
    { connector: 'USB-A', data: 'USB 2.0' },
    { name: 'the left one', connector: 'DC barrel', label: '19V⎓3.42A' },
  ] as const) {
    expect(readPort(writePort(port))).toEqual(port);
  }
  expect(writePort({ connector: 'USB-C', label: '5V⎓3A | 9V⎓2A' })).toBe('(USB-C) 5V⎓3A ; 9V⎓2A');
  expect(() => readPort('5V⎓3A')).toThrow(/Write it as C1 \(USB-C\)/);
});

it('says in one line what is written down of a group, and nothing of what is not', () => {
  const [, , takes, , , verdict] = FACTS.device;
  const nameOf = (id: string) => (id === 'c20' ? 'Cobble 20' : undefined);
  const given = {
    connectors: ['USB-C'],
    deliveryVolts: 9,
    chargingPort: true,
    families: [],
    barrelVolts: '',
    boxCharger: 'c20',
    price: 260,
  };
  expect(takes && factsSay(takes, given, nameOf)).toBe('USB-C · Power Delivery up to 9 V · Supports BC 1.2');
  expect(verdict && factsSay(verdict, given, nameOf)).toBe('Charger in its box Cobble 20 · Price 260');
  expect(verdict && factsSay(verdict, {}, nameOf)).toBe('');
});
