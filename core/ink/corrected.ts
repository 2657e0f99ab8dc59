import type { Correction, Event, Header, Source } from './entry';

/** A header and sources with their gear as it was corrected. */
interface Corrected {
  header: Header;
  corrections: (Correction & { before: Correction['gear'] | undefined })[];
  source: (source: Source) => Source;
  event: (event: Event) => Event;
}

/** Puts gear in the place of what it corrects, wherever a run has that: in its header, where its source was swapped, and where it was tried. */
export function correctedBy(header: Header, corrections: readonly Correction[]): Corrected {
  let now = header;
  const told: Corrected['corrections'] = [];
  for (const each of corrections) {
    told.push({ ...each, before: gearIn(now, each) });
    now = inHeader(now, each);
  }
  const source = (one: Source) => corrections.reduce(inSource, one);
  const event = (one: Event): Event => (one.event === 'swapped' && one.source ? { ...one, source: source(one.source) } : one);
  return { header: now, corrections: told, source, event };
}

function inHeader(header: Header, correction: Correction): Header {
  const { device, meter, cable } = header;
  if (correction.shelf === 'cable' && correction.was === undefined) return cable ? header : { ...header, cable: correction.gear };
  if (correction.shelf === 'device') return device.id === correction.was ? { ...header, device: correction.gear } : header;
  if (correction.shelf === 'meter') return meter?.id === correction.was ? { ...header, meter: correction.gear } : header;
  return { ...header, ...inSource(header, correction) };
}

/** One link of a source, and of what feeds it. A cable that was never noted is given to the run alone. */
function inSource<Link extends Pick<Source, 'charger' | 'cable' | 'feed'>>(source: Link, correction: Correction): Link {
  const { charger, cable, feed } = source;
  if (correction.was === undefined) return source;
  const fed = feed && inSource(feed, correction);
  if (correction.shelf === 'charger')
    return { ...source, charger: charger.id === correction.was ? correction.gear : charger, ...(fed && { feed: fed }) };
  if (correction.shelf === 'cable')
    return { ...source, ...(cable?.id === correction.was && { cable: correction.gear }), ...(fed && { feed: fed }) };
  return source;
}

/** What a correction takes the place of. */
function gearIn({ device, charger, cable, meter, feed }: Header, { shelf, was }: Correction): Correction['gear'] | undefined {
  if (was === undefined) return undefined;
  const all = { device: [device], charger: [charger, feed?.charger], cable: [cable, feed?.cable], meter: [meter] }[shelf];
  return all.find((each) => each?.id === was);
}
