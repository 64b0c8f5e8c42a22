/** "1,200": twelve hundred to some, one and a fifth to others. */
export const isAmbiguous = (text: string): boolean => /^\s*[+-]?[1-9]\d{0,2}(,\d{3})+\s*$/.test(text)

/** A number as a person types it, with a comma or a point; NaN for anything else: no text, and what could be read in two ways. */
export const typedNumber = (text: string): number => (text.trim() === '' || isAmbiguous(text) ? Number.NaN : Number(text.replace(',', '.')))
