import helmet from 'helmet'

/**
 * Nothing is loaded from elsewhere, nothing embeds the app. `wasm-unsafe-eval` lets the polygon kernel start; inline styles
 * are needed by the charting and overlay packages. Isolation from other origins gives workers shared memory, by which a
 * running computation learns that nobody waits for it any more.
 */
const headersWith = (scriptSrc: string[]) =>
  helmet({
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc,
        fontSrc: ["'self'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        workerSrc: ["'self'", 'blob:'],
        connectSrc: ["'self'"],
        frameAncestors: ["'none'"],
        upgradeInsecureRequests: null,
      },
    },
    crossOriginEmbedderPolicy: { policy: 'require-corp' },
    crossOriginOpenerPolicy: { policy: 'same-origin' },
    crossOriginResourcePolicy: { policy: 'same-origin' },
    strictTransportSecurity: false,
  })

export const securityHeaders = headersWith(["'self'", "'wasm-unsafe-eval'"])

/**
 * The polygon kernel's glue writes small functions at run time. It is let do so in its worker alone, which has no page, no
 * cookies and no script but the project's own.
 */
export const workerHeaders = headersWith(["'self'", "'wasm-unsafe-eval'", "'unsafe-eval'"])
