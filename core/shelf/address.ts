/** Where a machine listens. */
export interface Address {
  readonly host: string
  readonly port: number
}

/** "127.0.0.1:4831", as a place to connect to; undefined for what is none. */
export function addressIn(text: string): Address | undefined {
  const [, host, port] = /^([a-zA-Z0-9.-]+):(\d{1,5})$/.exec(text) ?? []
  return host === undefined ? undefined : { host, port: Number(port) }
}

/** A machine that nobody but this computer reaches. A name that only begins like one ("127.example.org") is none. */
export const isLoopback = (host: string): boolean => host === 'localhost' || /^127(\.\d{1,3}){3}$/.test(host)
