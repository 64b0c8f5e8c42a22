/** A name as it stands within a sentence: begun small. */
export const inSentence = (name: string): string => name.charAt(0).toLowerCase() + name.slice(1)
