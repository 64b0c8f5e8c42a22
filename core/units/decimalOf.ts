const MINUS = 45
const PLUS = 43
const POINT = 46
const E = 101
/** Powers of ten that a double holds exactly. */
const POWERS = Float64Array.from({ length: 23 }, (_, i) => 10 ** i)
/** A word that is longer than this is no number that a file would hold. */
const LONGEST = 64

/**
 * The number that a word of decimal digits says, as `Number` would give it; not a number where it says none.
 *
 * Up to 2⁵³ and 10²² both mantissa and power are exact, so that one multiplication or division rounds correctly (Clinger 1990,
 * "How to read floating point numbers accurately"); beyond, `Number` reads the word.
 */
export function decimalOf(bytes: Uint8Array, from: number, to: number): number {
  let at = from
  const negative = bytes[at] === MINUS
  if (negative || bytes[at] === PLUS) at++
  let mantissa = 0
  let digits = 0
  let power = 0
  let afterPoint = false
  for (; at < to; at++) {
    const digit = bytes[at]! - 48
    if (digit >= 0 && digit <= 9) {
      mantissa = 10 * mantissa + digit
      digits++
      if (afterPoint) power--
    } else if (bytes[at] === POINT && !afterPoint) afterPoint = true
    else break
  }
  if (digits > 0 && at < to - 1 && (bytes[at]! | 32) === E) {
    at++
    const down = bytes[at] === MINUS
    if (down || bytes[at] === PLUS) at++
    let told = at < to ? 0 : Number.NaN
    for (; at < to && bytes[at]! >= 48 && bytes[at]! <= 57; at++) told = 10 * told + bytes[at]! - 48
    power += down ? -told : told
  }
  const isExact = digits > 0 && at === to && mantissa <= Number.MAX_SAFE_INTEGER && Math.abs(power) < POWERS.length
  if (!isExact) return to - from > LONGEST || to === from ? Number.NaN : Number(String.fromCharCode(...bytes.subarray(from, to)))
  const value = power < 0 ? mantissa / POWERS[-power]! : mantissa * POWERS[power]!
  return negative ? -value : value
}
