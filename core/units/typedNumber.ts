/** A number as a person types it, with a comma or a point; NaN for anything else, no text included. */
export const typedNumber = (text: string): number => (text.trim() === '' ? Number.NaN : Number(text.replace(',', '.')))
