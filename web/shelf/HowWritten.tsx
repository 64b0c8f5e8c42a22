import { Button } from '../ui/Button'
import { chooseCurrency, currencies, symbolOf, useCurrency } from '../ui/currency'
import { chooseDates, dateForms, useDates } from '../ui/dates'
import { chooseDecimalMark, decimalMarks, useDecimalMark } from '../ui/decimalMark'
import { Popover } from '../ui/Popover'
import { Select } from '../ui/Select'

/** How money, dates and numbers are written: chosen once on this machine. */
export function HowWritten() {
  const currency = useCurrency((state) => state.code)
  const dates = useDates((state) => state.form)
  const mark = useDecimalMark((state) => state.mark)
  return (
    <Popover label="How money, dates and numbers are written" trigger={<Button>{symbolOf(currency)}, dates, numbers</Button>}>
      <div className="grid grid-cols-[6rem_1fr] items-center gap-x-3 gap-y-2 text-[12.5px]">
        <label htmlFor="currency">Currency</label>
        <Select
          id="currency"
          label=""
          name="Currency"
          value={currency}
          of={currencies.map((code) => ({ id: code, name: `${code} ${symbolOf(code)}` }))}
          onChange={chooseCurrency}
        />
        <label htmlFor="dates">Dates</label>
        <Select id="dates" label="" name="Dates" value={dates} of={dateForms} onChange={chooseDates} />
        <label htmlFor="decimal-mark">Numbers</label>
        <Select id="decimal-mark" label="" name="Numbers" value={mark} of={decimalMarks} onChange={chooseDecimalMark} />
      </div>
      <p className="mt-2 text-[12px] text-muted">
        Numbers: in CSV files and copied cells. On screen they have a point; either is understood where one types.
      </p>
    </Popover>
  )
}
