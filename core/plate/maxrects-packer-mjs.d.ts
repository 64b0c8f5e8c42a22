/** The package names its module for bundlers alone: Node.js finds it by its file. */
declare module 'maxrects-packer/dist/maxrects-packer.mjs' {
  export { MaxRectsPacker } from 'maxrects-packer'
}
