import { civil, MONTHS } from '../../table/calendar';
import type { Days } from './coverage';

/** `1 Jan 2026` */
function dayWords(days: number): string {
  const { year, month, day } = civil(days);
  return `${day} ${MONTHS[month - 1].slice(0, 3)} ${year}`;
}

/** `1 Jan 2026 to 30 Jun 2026` */
export const daysWords = ({ from, to }: Days): string =>
  from === to ? dayWords(from) : `${dayWords(from)} to ${dayWords(to)}`;
