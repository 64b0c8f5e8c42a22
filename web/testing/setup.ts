import { cleanup } from '@testing-library/react'
import { afterEach } from 'vitest'

// What browsers have and the stand-in lacks; only menus and lists ask for it.
Element.prototype.hasPointerCapture ??= () => false
Element.prototype.setPointerCapture ??= () => {}
Element.prototype.releasePointerCapture ??= () => {}
Element.prototype.scrollIntoView ??= () => {}

// There is no server: what asks for one is told so at once.
globalThis.fetch = () => Promise.reject(new TypeError('no server'))

afterEach(cleanup)
