import { shownMargin } from '../margin/bounds';
import { isBetter, mainBy, meansIn, riseBy } from './best';
import { frontierOf, type Plotted } from './frontier';
import { either, listed } from '../quantity/listed';
import type { OwnClaim } from './claims';
import { figureOf, type Group, type SaidAdvice } from './question';

/** Speed against heat of the setups that have both; `undefined` where fewer than two do. */
function speedAndHeat(group: Group, window: number) {
  const heat = riseBy(group);
  const speed = mainBy(group, window);
  const [fast, cool] = [figureOf(group, speed), figureOf(group, heat)];
  if (!fast || !cool || !group.device) return undefined;
  const both = meansIn(fast.cells).filter((index) => meansIn(cool.cells).includes(index));
  if (both.length < 2) return undefined;
  const at = (index: number) => both[index] ?? -1;
  const faster = (one: number, other: number) => isBetter(fast.cells, fast.measure, at(one), at(other));
  const cooler = (one: number, other: number) => isBetter(cool.cells, cool.measure, at(one), at(other));
  return { fast, cool, both, at, faster, cooler, line: frontierOf(both.length, [faster, cooler]) };
}

/** Rise against time, to be drawn: in °C and seconds. */
export interface Balance {
  title: string;
  heat: string;
  points: Plotted[];
}

/** Rise against time; `undefined` where speed is known by gains alone. */
export function balanceOf(group: Group, window: number): Balance | undefined {
  const found = speedAndHeat(group, window);
  if (found?.fast.measure.better !== 'less') return undefined;
  const { fast, cool, both, line } = found;
  const points = both.map((index, place): Plotted => {
    const [time, rise] = [fast.cells[index]?.mean, cool.cells[index]?.mean];
    return {
      index,
      name: group.names[index] ?? '',
      x: rise?.value ?? 0,
      xMargin: shownMargin(rise?.uncertainty ?? 0),
      y: time?.value ?? 0,
      yMargin: shownMargin(time?.uncertainty ?? 0),
      isOn: line.includes(place),
    };
  });
  return { title: fast.measure.title, heat: cool.measure.title, points };
}

/** So many are told one by one. */
const NAMED = 5;

/** The best balance of speed and heat: those that none is both surely faster and no hotter than. */
export function balance(group: Group, window: number): SaidAdvice | undefined {
  const found = speedAndHeat(group, window);
  if (!found) return undefined;
  const { fast, cool, both, at, faster, cooler, line } = found;
  const name = (index: number) => group.names[at(index)] ?? '';
  const claims: OwnClaim[] = [];
  const tell = ({ measure, cells }: typeof fast, index: number): string => {
    const value = cells[at(index)]?.value ?? '';
    claims.push({ figure: measure.id, who: name(index), says: 'is', value });
    return value;
  };
  const figures = (index: number) => `${tell(fast, index)}, ${tell(cool, index)} warmer`;
  const says = (index: number) => `${name(index)}: ${figures(index)}`;
  const free = both.flatMap((_, one) => {
    const beaten = both.flatMap((__, other) => (other !== one && faster(one, other) && !cooler(other, one) ? [name(other)] : []));
    return beaten.length > 0 && line.includes(one)
      ? [`${name(one)} is faster than ${listed(beaten)}, and no hotter that these readings can show.`]
      : [];
  });
  const isAll = line.length === both.length;
  const isTraded = both.some((_, one) => both.some((__, other) => faster(one, other) && cooler(other, one)));
  return {
    who: !isAll
      ? either(line.map(name))
      : isTraded
        ? 'None wins both: what is faster gets hotter'
        : 'No difference that these readings can show',
    figures: !isAll && line.length === 1 ? figures(line[0] ?? 0) : undefined,
    why: [
      line.length > 1 ? `${line.slice(0, NAMED).map(says).join('; ')}. None of these is beaten in one without losing in the other.` : '',
      ...free.slice(0, 2),
    ]
      .filter(Boolean)
      .join(' '),
    claims,
  };
}
