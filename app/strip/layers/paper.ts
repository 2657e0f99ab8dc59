import { quantityOf } from '@core/quantity';
import { say, type Layer } from './drawing';
import { labelSize, momentLabel } from './frame';
import { isOfRise, mainTrack } from './look';

/** The paper: its rules, fine and coarse, what they stand for, and the title of each scale. */
export const paper: Layer = (drawing) => {
  const { to, frame, look, palette, traces } = drawing;
  const { rule, grid, soft } = palette;
  /** Of a pixel's width, on a pixel. */
  const line = (colour: string, left: number, top: number, wide: number, high: number) => {
    const [x, y] = [Math.round(left), Math.round(top)];
    to.rect({ left: x, top: y, right: x + Math.max(1, wide), bottom: y + Math.max(1, high) }, { fill: colour });
  };
  for (const moment of frame.fine)
    line(moment % frame.coarse === 0 ? rule : grid, frame.xOf(moment), frame.top, 1, frame.bottom - frame.top);
  for (const { track, rules, yOf } of frame.tracks)
    for (const value of rules)
      line(track === 'percent' && value % 50 === 0 ? rule : grid, frame.left, yOf(value), frame.right - frame.left, 1);
  if (look.size === 'row') return;

  const size = labelSize(look.size);
  const figures = { colour: soft, size, family: 'figures' } as const;
  for (const { labels, yOf } of frame.tracks)
    for (const { value, text } of labels)
      if (look.size === 'lane')
        say(drawing, 'paper', text, frame.right - 3, yOf(value) + (value === 100 ? size : size * 0.35), { ...figures, align: 'end' });
      else say(drawing, 'paper', text, frame.left - 6, yOf(value) + size * 0.35, { ...figures, align: 'end' });

  const words = { colour: soft, size: look.size === 'sheet' ? 12 : 10, family: 'words' } as const;
  const axis = look.size === 'sheet' ? 'since plug-in' : '';
  const end = frame.right - (axis ? to.widthOf(axis, words) + 10 : 0);
  for (const moment of frame.fine) {
    if (moment % frame.coarse !== 0 || moment >= frame.until) continue;
    const text = momentLabel(moment);
    const at = frame.xOf(moment);
    if (at + to.widthOf(text, figures) <= end) say(drawing, 'paper', text, at, frame.bottom + size + 5, figures);
  }
  say(drawing, 'paper', axis, frame.right, frame.bottom + size + 5, { ...words, align: 'end' });
  if (look.size !== 'sheet') return;
  const main = mainTrack(traces);
  for (const { track, top } of frame.tracks) {
    const { title = '', axis: kind } = quantityOf(track).track ?? {};
    // The level has its unit at every rule; its curve comes to the top at the right.
    if (track === 'percent' && main === 'percent' && frame.tracks.length === 1) continue;
    const [x, align] = track === 'percent' ? ([frame.left + 6, 'start'] as const) : ([frame.right - 6, 'end'] as const);
    say(drawing, 'paper', kind === 'tens' && isOfRise(traces) ? `rise of ${title}` : title, x, top + 12, { ...words, align });
  }
};
