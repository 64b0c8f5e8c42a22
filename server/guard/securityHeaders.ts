import helmet from 'helmet'

/**
 * Nothing is loaded from elsewhere, nothing embeds the app. `wasm-unsafe-eval` lets the polygon kernel start; inline styles
 * are needed by the charting and overlay packages. Isolation from other origins gives workers shared memory, by which a
 * running computation learns that nobody waits for it any more.
 */
export const securityHeaders = helmet({
  contentSecurityPolicy: {
    directives: {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
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
