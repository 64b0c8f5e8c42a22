interface Props {
  readonly axis: 'x' | 'y'
  /** The part's extent along the axis, and where it is cut, mm. */
  readonly low: number
  readonly high: number
  readonly place: number
  readonly onPlace: (place: number) => void
  readonly onRest: () => void
}

/** Moves an upright cut through the part. */
export const CutBar = ({ axis, low, high, place, onPlace, onRest }: Props) => (
  <label className="mt-1.5 flex items-center gap-3 text-[12.5px]">
    <span className="text-muted">{axis.toUpperCase()}</span>
    <input
      type="range"
      min={low}
      max={high}
      step={0.1}
      value={place}
      aria-label={`Place of the cut along ${axis.toUpperCase()}`}
      onChange={(event) => onPlace(Number(event.target.value))}
      onPointerUp={onRest}
      onKeyUp={onRest}
      className="flex-1 accent-lantern"
    />
    <span className="figure w-20 text-right">{place.toFixed(1)} mm</span>
  </label>
)
