import type { Kept } from '../bench/shelf';
import type { Correction, Entry, Event, Header, Source } from './entry';

/** A header and sources with their gear as it was corrected. */
interface Corrected {
  header: Header;
  corrections: (Correction & { before: Correction['gear'] | undefined })[];
  source: (source: Source) => Source;
  event: (event: Event) => Event;
}

/** Puts gear in the place of what it corrects, wherever a run has that: in its header, where its source was swapped, and where it was tried. */
/** @param sources those that were swapped in or tried, which may hold what a correction takes the place of */
export function correctedBy(header: Header, corrections: readonly Correction[], sources: readonly Source[] = []): Corrected {
  let [now, others] = [header, sources];
  const told: Corrected['corrections'] = [];
  for (const each of corrections) {
    told.push({ ...each, before: gearIn(now, others, each) });
    now = inHeader(now, each);
    others = others.map((source) => inSource(source, each));
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
function gearIn(header: Header, sources: readonly Source[], { shelf, was }: Correction): Correction['gear'] | undefined {
  return was === undefined ? undefined : carried(header, sources).find((each) => each.shelf === shelf && each.gear.id === was)?.gear;
}

/** All gear of a run, each piece once: what it has in its header, then what was swapped in and what was tried. */
export function carried(header: Header, sources: readonly Source[]): Kept[] {
  const links = [header, ...sources].flatMap(({ charger, cable, feed }) => [{ charger, cable }, ...(feed ? [feed] : [])]);
  const all: (Kept | undefined)[] = [
    { shelf: 'device', gear: header.device },
    header.meter && { shelf: 'meter', gear: header.meter },
    ...links.flatMap(({ charger, cable }): (Kept | undefined)[] => [
      { shelf: 'charger', gear: charger },
      cable && { shelf: 'cable', gear: cable },
    ]),
  ];
  return [...new Map(all.flatMap((each) => (each ? [[`${each.shelf} ${each.gear.id}`, each] as const] : []))).values()];
}

/** All gear of a run that was folded, what was tried in it too. */
export const gearOfRun = ({
  header,
  sources,
  trials,
}: {
  header: Header;
  sources: readonly Source[];
  trials: readonly { source: Source }[];
}): Kept[] => carried(header, [...sources, ...trials.map(({ source }) => source)]);

/** The sources that ink names: those that were swapped in, listed and tried. */
export const sourcesIn = (entries: readonly Entry[]): Source[] =>
  entries.flatMap((entry) => {
    if (entry.kind === 'list') return entry.sources;
    if (entry.kind === 'trial') return [entry.source];
    return entry.kind === 'event' && entry.event === 'swapped' && entry.source ? [entry.source] : [];
  });
