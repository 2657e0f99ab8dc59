/** What a port is called: by its name, else by its place. */
export function portName(port: { name?: string | undefined }, index: number): string {
  return port.name || `port ${index + 1}`;
}
