import { create } from 'zustand'

/** Currencies that can be chosen, by their ISO 4217 codes. */
export const currencies =
  'EUR USD GBP CHF SEK NOK DKK ISK PLN CZK HUF RON BGN UAH TRY ILS ZAR AUD NZD CAD MXN BRL ARS CLP INR CNY JPY KRW SGD THB'.split(' ')

const KEY = 'sable.currency'

const chosen = (): string => {
  // Texts are made outside a browser, too.
  const code = globalThis.localStorage?.getItem(KEY) ?? ''
  return currencies.includes(code) ? code : 'EUR'
}

/** In which currency all prices are: chosen once on this machine, and shown wherever money stands. */
export const useCurrency = create<{ readonly code: string }>()(() => ({ code: chosen() }))

export function chooseCurrency(code: string): void {
  localStorage.setItem(KEY, code)
  useCurrency.setState({ code })
}

/** "€", "CA$", "CHF" */
export const symbolOf = (code: string): string =>
  new Intl.NumberFormat('en', { style: 'currency', currency: code, currencyDisplay: 'symbol' })
    .formatToParts(0)
    .find(({ type }) => type === 'currency')?.value ?? code

/** A text of the figures with the chosen currency for the sign "¤", which stands for any. */
export const inMoney = (text: string): string => (text.includes('¤') ? text.replaceAll('¤', symbolOf(useCurrency.getState().code)) : text)
