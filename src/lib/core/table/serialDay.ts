import { dayNumber } from './calendar';

/** The last number before which the 1900 system counts a day that never was. */
const LEAP_1900 = 60;

/**
 * The day of a serial number (ISO/IEC 29500-1, 18.17.4.1): in the 1900 system day 1 is 1 January 1900,
 * and 29 February 1900, which never was, has a number; in the 1904 system day 0 is 1 January 1904.
 * @param serial a whole number; null is given for what is no day of the system
 */
export function dayOfSerial(serial: number, date1904 = false): number | null {
  if (date1904) return dayNumber(1904, 1, 1) + serial;
  if (serial === LEAP_1900 || serial < 1) return null;
  return dayNumber(1899, 12, 31) + serial - (serial > LEAP_1900 ? 1 : 0);
}
