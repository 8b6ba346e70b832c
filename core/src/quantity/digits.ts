/** Digits read where they stand in a text, for rows of which there may be a million. */

/** The whole number of so many digits at a place; NaN where one of them is no digit. */
export function digitsAt(text: string, at: number, count: number): number {
  let number = 0;
  for (let place = at; place < at + count; place += 1) {
    const digit = text.charCodeAt(place) - 48;
    if (!(digit >= 0 && digit <= 9)) return Number.NaN;
    number = number * 10 + digit;
  }
  return number;
}

/** Milliseconds since midnight of "hh:mm" or "hh:mm:ss" at a place; NaN for anything that no clock shows. */
export function clockMsAt(text: string, at: number, withSeconds: boolean): number {
  const [hours, minutes] = [digitsAt(text, at, 2), digitsAt(text, at + 3, 2)];
  const seconds = withSeconds ? digitsAt(text, at + 6, 2) : 0;
  const isClock = hours < 24 && minutes < 60 && seconds < 60;
  const isParted = isColon(text, at + 2) && (!withSeconds || isColon(text, at + 5));
  return isClock && isParted ? ((hours * 60 + minutes) * 60 + seconds) * 1000 : Number.NaN;
}

export const isColon = (text: string, at: number): boolean => text.charCodeAt(at) === 58;
