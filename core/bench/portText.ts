import { quoted } from '../quantity/letters';
import { DATA_PORTS, PORT_CONNECTORS, type Port } from './charger';

/** A port in a line: `C1 (USB-C) 5V⎓3A [probed: 5V⎓2A]`. Lines of ports are joined by `|`, so none may be within. */
export function writePort({ name, connector, label = '', probed, data }: Port): string {
  const outlet = data ? `${connector}, ${data}` : connector;
  const found = probed ? ` [probed: ${probed}]` : '';
  return `${name ? `${name} ` : ''}(${outlet}) ${label.replaceAll('|', ';')}${found}`.trim();
}

const MOST_PORT_TEXT = 1000;

const PORT = new RegExp(
  `^(.*?)\\s*\\((${PORT_CONNECTORS.join('|')})(?:,\\s*(${DATA_PORTS.join('|')}))?\\)\\s*(.*?)(?:\\s*\\[probed:\\s*(.*)\\])?$`,
  'i',
);

/**
 * Reads a port as `writePort` writes it.
 *
 * @throws {Error} in a sentence that says how to write one
 */
export function readPort(text: string): Port {
  // No port is longer; blanks are drawn together, for the pattern would take long over many.
  const match = PORT.exec(text.slice(0, MOST_PORT_TEXT).replace(/\s+/g, ' ').trim());
  if (!match) throw new Error(`${quoted(text.trim())} is not a port. Write it as C1 (USB-C) 5V⎓3A.`);
  const [, name, connector, data, label, probed] = match;
  const known = <Choice extends string>(choices: readonly Choice[], typed: string | undefined) =>
    choices.find((each) => each.toLowerCase() === typed?.toLowerCase());
  const dataPort = known(DATA_PORTS, data);
  return {
    connector: known(PORT_CONNECTORS, connector) ?? 'USB-C',
    ...(name && { name }),
    ...(label && { label }),
    ...(probed && { probed }),
    ...(dataPort && { data: dataPort }),
  };
}
