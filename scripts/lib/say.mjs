/** Progress goes to stderr, so that what a command prints stays clean. */
export const say = (text) => process.stderr.write(`${text}\n`)

/** Ends the script with a sentence that says what to do. */
export function refuse(text) {
  say(text)
  process.exit(1)
}
